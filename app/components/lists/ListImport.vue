<script setup lang="ts">
import { replaceEdit } from '#core/lists/changes'
import type { Missing } from '#core/lists/difference'
import type { Role } from '#core/lists/table'
import { ROW_KEYS, type ChoiceList, type ColumnKind } from '#core/form/choiceLists'
import { columnsOf } from '#core/form/types'
import { codeFromLabel } from '#core/form/codes'
import type { Address } from '#core/form/walk'
import type { Edit } from '#core/form/edits'
import type { Comparison, ListsAnswer, ListsQuestion, Preview } from '~/workers/lists.worker'

/** A file comes in: read in a worker, each column said what it is, then what it would change; one step to undo. */
const props = defineProps<{ list: ChoiceList }>()
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const address = computed((): Address => `list/${props.list.code}`)
const share = ref<number | null>(null)
const failed = ref<string | null>(null)
const preview = shallowRef<Preview | null>(null)
const comparison = shallowRef<Comparison | null>(null)
const roles = ref<Role[]>([])
const kinds = ref<Record<string, ColumnKind>>({})
const missing = ref<Missing>('keep')
let worker: Worker | null = null

function ask(question: ListsQuestion) {
  const reader = worker ?? newListsWorker()
  reader.onmessage = ({ data }: MessageEvent<ListsAnswer>) => hear(data)
  reader.onerror = event => {
    failed.value = `The file can’t be read: ${event.message}`
  }
  worker = reader
  reader.postMessage(question)
}
function hear(answer: ListsAnswer) {
  if (answer.is === 'progress') share.value = answer.share
  else if (answer.is === 'failed') {
    failed.value = answer.sentence
    share.value = null
  } else if (answer.is === 'read') {
    preview.value = answer.preview
    roles.value = answer.preview.roles
    kinds.value = answer.preview.kinds
    compare()
  } else if (answer.is === 'compared') {
    comparison.value = answer.comparison
    share.value = null
  }
}
function read(file: File | undefined) {
  if (!file) return
  failed.value = null
  preview.value = comparison.value = null
  share.value = 0
  ask({
    ask: 'read',
    file,
    known: Object.fromEntries(
      props.list.rows.length === 0
        ? columnsOf(props.list)
            .filter(c => c.given)
            .map(c => [c.code, c.type])
        : columnsOf(props.list).map(c => [c.code, c.type]),
    ),
  })
}
function compare() {
  share.value ??= 0.9
  ask({
    ask: 'compare',
    roles: roles.value.map(r => (typeof r === 'object' ? { column: r.column } : r)),
    kinds: { ...kinds.value },
    before: props.list.rows,
    missing: missing.value,
  })
}
function cancel() {
  worker?.terminate()
  worker = null
  share.value = null
  preview.value = comparison.value = null
}
onBeforeUnmount(() => worker?.terminate())
const NAMED_ROLES = ['code', 'label', 'retired', 'remark'] as const
const roleText = (role: Role | undefined) =>
  typeof role === 'object' ? `column:${role.column}` : (role ?? 'skip')
function setRole(i: number, text: string) {
  roles.value = roles.value.with(i, roleOf(text))
  compare()
}
function roleOf(text: string): Role {
  if (text.startsWith('column:')) return { column: text.slice('column:'.length) }
  return NAMED_ROLES.find(r => r === text) ?? 'skip'
}
const columnsFor = (i: number) => {
  const own = codeFromLabel(preview.value?.heads[i] ?? '', `column_${i + 1}`)
  return [...new Set([...columnsOf(props.list).map(c => c.code), ...(ROW_KEYS.has(own) ? [] : [own])])]
}
function take() {
  const found = comparison.value
  if (!found) return
  const known = new Set(columnsOf(props.list).map(c => c.code))
  const columns = [
    ...(props.list.columns ?? []),
    ...found.columns
      .filter(c => !known.has(c))
      .map(code =>
        kinds.value[code] && kinds.value[code] !== 'text' ? { code, type: kinds.value[code] } : code,
      ),
  ]
  const edits: Edit[] = [
    ...(columns.length > (props.list.columns ?? []).length
      ? [{ do: 'change' as const, what: address.value, set: { columns } }]
      : []),
    replaceEdit(address.value, props.list.rows, found.rows),
  ]
  if (draft.edit(edits)) emit('close')
  else failed.value = draft.refused
}
</script>

<template>
  <div class="import">
    <div class="row-flex">
      <v-file-input
        class="file"
        accept=".csv,.tsv,.txt,.xlsx"
        placeholder="Choose a file (CSV or XLSX)"
        aria-label="Table to import"
        :clearable="false"
        @update:model-value="read([$event ?? []].flat()[0])"
      />
      <template v-if="share !== null"
        ><v-progress-linear
          class="reading"
          :model-value="share * 100"
          color="primary"
          aria-label="Reading"
        /><v-btn
          variant="text"
          @click="cancel"
        >
          Cancel
        </v-btn></template
      >
      <span class="spread" /><v-btn
        variant="text"
        @click="emit('close')"
      >
        Close
      </v-btn>
    </div>
    <RefusalAlert :refusal="failed" />
    <template v-if="preview">
      <v-alert
        v-for="w in preview.warnings"
        :key="w"
        type="warning"
        role="status"
      >
        {{ w }}
      </v-alert>
      <div class="table">
        <v-table class="small">
          <thead>
            <tr>
              <th
                v-for="(h, i) in preview.heads"
                :key="i"
              >
                {{ h || `(column ${i + 1})` }}
              </th>
            </tr>
            <tr>
              <th
                v-for="(h, i) in preview.heads"
                :key="i"
              >
                <v-select
                  :model-value="roleText(roles[i])"
                  :aria-label="`What ${h || `column ${i + 1}`} is`"
                  :items="[
                    { value: 'code', title: 'code' },
                    { value: 'label', title: 'label' },
                    ...columnsFor(i).map(c => ({ value: `column:${c}`, title: `column ${c}` })),
                    { value: 'retired', title: 'retired' },
                    { value: 'remark', title: 'remark' },
                    { value: 'skip', title: 'leave out' },
                  ]"
                  @update:model-value="setRole(i, $event)"
                />
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(l, i) in preview.lines.slice(0, 4)"
              :key="i"
            >
              <td
                v-for="(_, j) in preview.heads"
                :key="j"
              >
                {{ l[j] }}
              </td>
            </tr>
          </tbody>
        </v-table>
      </div>
    </template>
    <template v-if="comparison">
      <p class="small">
        <strong>{{ comparison.counts.added }} new</strong> ·
        <strong>{{ comparison.counts.changed }} changed</strong> · {{ comparison.counts.same }} as they
        are<template v-if="comparison.counts.clashing > 0">
          ·
          <strong class="risk"
            >{{ comparison.counts.clashing }} with a code that another row’s label had: does the code mean
            something else now?</strong
          ></template
        >
      </p>
      <p
        v-if="comparison.counts.missing > 0"
        class="small"
      >
        {{ comparison.counts.missing }} of the list {{ comparison.counts.missing === 1 ? 'is' : 'are' }} not
        in the file (such as {{ comparison.missing[0]?.label }}):
        <v-select
          v-model="missing"
          aria-label="What becomes of rows that the file does not have"
          :items="[
            { value: 'keep', title: 'keep them as they are' },
            { value: 'retire', title: 'retire them' },
            { value: 'remove', title: 'take them out' },
          ]"
          @update:model-value="compare"
        />
      </p>
      <ul class="small quiet">
        <li
          v-for="c in comparison.changed.slice(0, 5)"
          :key="c.after.code"
        >
          <code>{{ c.after.code }}</code>:
          {{ c.cells.map(k => `${k} “${c.before[k] ?? ''}” → “${c.after[k] ?? ''}”`).join(', ') }}
        </li>
        <li
          v-for="c in comparison.clashing.slice(0, 5)"
          :key="c.after.code"
          class="risk"
        >
          <code>{{ c.after.code }}</code>: “{{ c.before.label }}” → “{{ c.after.label }}”
        </li>
      </ul>
      <FoldedPart
        v-if="comparison.problems.length > 0"
        class="risk"
        :title="`${comparison.problems.length} ${comparison.problems.length === 1 ? 'thing does' : 'things do'} not fit`"
      >
        <p
          v-for="(p, i) in comparison.problems.slice(0, 50)"
          :key="i"
        >
          Row {{ p.row }}: {{ p.sentence }}
        </p>
      </FoldedPart>
      <div class="row-flex">
        <v-btn
          variant="flat"
          color="primary"
          :disabled="share !== null"
          @click="take"
        >
          Take {{ comparison.counts.added + comparison.counts.changed + comparison.counts.clashing }} rows in
        </v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.file {
  width: 260px;
}
.import {
  border: 1px solid var(--line);
  padding: 10px;
  display: grid;
  gap: 6px;
  max-height: 340px;
  overflow-y: auto;
  flex: none;
}
.table {
  overflow-x: auto;
}
td,
th {
  padding: 2px 8px 2px 0;
  text-align: left;
  white-space: nowrap;
  max-width: 160px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.reading {
  width: 160px;
  accent-color: var(--verdigris);
}
li {
  margin-left: 18px;
}
</style>
