<script setup lang="ts">
import { replaceEdit } from '#core/lists/changes'
import type { Missing } from '#core/lists/difference'
import type { Role } from '#core/lists/table'
import { ROW_KEYS, type ChoiceList, type ColumnKind } from '#core/form/choiceLists'
import { columnsOf } from '#core/form/types'
import { codeFromLabel } from '#core/form/codes'
import { LIMITS } from '#core/form/limits'
import type { Address } from '#core/form/walk'
import type { Edit } from '#core/form/edits'
import type { Comparison, ListsAnswer, ListsQuestion, Preview } from '~/workers/lists.worker'

/** A file comes in: read in a worker, each column said what it is, then what it would change; one step to undo. */
const props = defineProps<{ list: ChoiceList; pasted: string | null }>()
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
  ask({ ask: 'read', file, known: known() })
}
/** The columns that the list has; of an empty one those whose kind was said. */
const known = () =>
  Object.fromEntries(
    columnsOf(props.list)
      .filter(c => props.list.rows.length > 0 || c.given)
      .map(c => [c.code, c.type]),
  )
const setHeaded = (isHeaded: boolean | null) =>
  ask({ ask: 'head', isHeaded: isHeaded === true, known: known() })
onMounted(() => {
  if (props.pasted !== null) read(new File([props.pasted], 'pasted.tsv'))
})
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
/** Which column is the code, or the label: said once, wherever it stands; what was it before becomes a column again. */
function setNamed(role: 'code' | 'label', at: number | null) {
  const own = (i: number): Role => ({ column: columnsFor(i).at(-1) ?? `column_${i + 1}` })
  roles.value = roles.value.map((r, i) => {
    if (i === at) return role
    return r === role ? own(i) : r
  })
  compare()
}
const columnItems = computed(() =>
  (preview.value?.heads ?? []).map((h, i) => ({ value: i, title: h || `Column ${i + 1}` })),
)
const placeOf = (role: Role) => roles.value.indexOf(role)
function roleOf(text: string): Role {
  if (text.startsWith('column:')) return { column: text.slice('column:'.length) }
  return NAMED_ROLES.find(r => r === text) ?? 'skip'
}
const columnsFor = (i: number) => {
  const own = codeFromLabel(preview.value?.heads[i] ?? '', `column_${i + 1}`)
  return [...new Set([...columnsOf(props.list).map(c => c.code), ...(ROW_KEYS.has(own) ? [] : [own])])]
}
/** A new column is called what its head said. */
function newColumn(code: string) {
  const at = roles.value.findIndex(r => typeof r === 'object' && r.column === code)
  const label = preview.value?.heads[at]?.trim().slice(0, LIMITS.label) ?? ''
  const type = kinds.value[code] ?? 'text'
  return {
    code,
    ...(label !== '' && label !== code ? { label } : {}),
    ...(type === 'text' ? {} : { type }),
  }
}
function take() {
  const found = comparison.value
  if (!found) return
  const has = new Set(columnsOf(props.list).map(c => c.code))
  const columns = [...(props.list.columns ?? []), ...found.columns.filter(c => !has.has(c)).map(newColumn)]
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
      <div class="row-flex asks">
        <v-select
          :model-value="placeOf('label')"
          label="Respondents read"
          :items="columnItems"
          @update:model-value="setNamed('label', $event)"
        />
        <v-select
          :model-value="placeOf('code')"
          label="The code is"
          :items="[{ value: -1, title: 'made of what is read' }, ...columnItems]"
          @update:model-value="setNamed('code', $event)"
        />
        <v-checkbox
          :model-value="preview.isHeaded"
          density="compact"
          hide-details
          label="The first line heads the columns"
          @update:model-value="setHeaded"
        />
      </div>
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
      <ImportComparison
        v-model:missing="missing"
        :comparison="comparison"
        @compare="compare"
      />
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
.asks {
  flex-wrap: wrap;
  gap: 8px 16px;
}
.asks .v-select {
  flex: 0 1 200px;
}
.asks .v-checkbox {
  flex: 0 0 auto;
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
</style>
