<script setup lang="ts">
import { useImport, type ImportedRow } from '~/composables/collect/useImport'

/** Brings responses in from a file: what it would do is shown first, row by row. */
const props = defineProps<{ form: string }>()
const emit = defineEmits<{ close: [] }>()
const collect = useCollect()
const { stage, rows, unread, loose, through, refusal, look, take, stop } = useImport(() => props.form)
const reason = ref('')
const name = ref('')
type Kind = 'new' | 'changed' | 'refused' | 'same'
const KINDS: { kind: Kind; words: string }[] = [
  { kind: 'new', words: 'new' },
  { kind: 'changed', words: 'changed' },
  { kind: 'same', words: 'as they are' },
  { kind: 'refused', words: 'refused' },
]
/** What a row would do, or, once it was sent, what it did. */
const kindOf = (row: ImportedRow) => row.taken?.is ?? row.weighed?.is
const counts = computed(() =>
  KINDS.map(k => ({ ...k, count: rows.value.filter(row => kindOf(row) === k.kind).length })),
)
const countOf = (kind: Kind) => counts.value.find(k => k.kind === kind)?.count ?? 0
const due = computed(
  () => rows.value.filter(r => r.weighed?.is === 'new' || r.weighed?.is === 'changed').length,
)
/** More rows are not shown at once. */
const MOST_SHOWN = 200
const only = ref<Kind>('changed')
const shown = computed(() => rows.value.filter(row => kindOf(row) === only.value).slice(0, MOST_SHOWN))
const options = computed(() =>
  counts.value.map(({ kind, words, count }) => ({ value: kind, title: `${count} ${words}` })),
)
const isBusy = computed(() => stage.value === 'looking' || stage.value === 'taking')
const all = computed(() => (stage.value === 'taking' ? due.value : rows.value.length))
async function choose(file: unknown) {
  if (!(file instanceof File)) return
  name.value = file.name
  reason.value = `Brought in from ${file.name}`.slice(0, 200)
  await look(file)
  only.value = KINDS.find(k => k.kind !== 'same' && countOf(k.kind) > 0)?.kind ?? 'same'
}
async function bringIn() {
  await take(reason.value)
  only.value = countOf('refused') > 0 ? 'refused' : only.value
  await collect.changed()
}
const problemsOf = (row: ImportedRow) => row.taken?.problems ?? row.weighed?.problems ?? []
const titleOf = (row: ImportedRow) => {
  const number = row.taken?.number ?? row.number
  return number === null ? `Line ${row.line}` : `Line ${row.line}, response ${number}`
}
</script>

<template>
  <PlainDialog
    title="Bring responses in"
    :width="760"
    @close="emit('close')"
  >
    <RefusalAlert :refusal="refusal" />
    <template v-if="stage === 'choosing'">
      <p class="quiet">
        A table as it is taken out here (CSV or XLSX), or JSON Lines. A row with a number corrects that
        response; one without, or with a word in its place such as “new 1”, begins a new one. What repeats is
        read from the sheets of a workbook, by the same number or word. Nothing is stored before you have seen
        what would change.
      </p>
      <v-file-input
        accept=".csv,.xlsx,.jsonl"
        placeholder="Choose a file"
        aria-label="File with responses"
        :clearable="false"
        @update:model-value="choose([$event ?? []].flat()[0])"
      />
    </template>
    <template v-else-if="isBusy">
      <p>{{ stage === 'looking' ? 'Looking at' : 'Bringing in' }} {{ name }}: {{ through }} of {{ all }}</p>
      <v-progress-linear
        :model-value="all === 0 ? 0 : (100 * through) / all"
        aria-label="Rows that are through"
      />
    </template>
    <template v-else>
      <p v-if="stage === 'taken'">
        <strong>{{ countOf('new') }} came in, {{ countOf('changed') }} were corrected</strong
        ><template v-if="countOf('refused') > 0">, {{ countOf('refused') }} were left out</template>.
      </p>
      <p
        v-if="unread.length > 0"
        class="risk"
      >
        Nothing is read from {{ unread.length === 1 ? 'the column' : 'the columns' }} {{ unread.join(', ') }}.
      </p>
      <p
        v-if="loose > 0"
        class="risk"
      >
        {{ counted(loose, 'entry', 'entries') }} in the sheets of what repeats
        {{ loose === 1 ? 'belongs' : 'belong' }} to no row of the first sheet, and
        {{ loose === 1 ? 'is' : 'are' }}
        not read.
      </p>
      <SegmentedChoice
        v-model="only"
        name="Which rows"
        :options="options"
      />
      <ul
        class="rows"
        aria-label="Rows"
      >
        <li
          v-for="row in shown"
          :key="row.line"
        >
          <strong>{{ titleOf(row) }}</strong>
          <p
            v-for="(p, i) in problemsOf(row)"
            :key="`p${i}`"
            class="fault"
          >
            <template v-if="p.path">{{ p.path }}: </template>{{ p.sentence }}
          </p>
          <p
            v-for="(c, i) in only === 'refused' ? [] : (row.weighed?.changes ?? [])"
            :key="`c${i}`"
          >
            {{ c.label }}: <del v-if="c.before">{{ c.before }}</del> {{ c.before ? '→' : '' }}
            {{ c.after || 'left blank' }}
          </p>
        </li>
        <li
          v-if="shown.length === 0"
          class="quiet"
        >
          No row is so.
        </li>
      </ul>
      <p
        v-if="countOf(only) > shown.length"
        class="quiet small"
      >
        The first {{ MOST_SHOWN }} are shown.
      </p>
      <LabelledField
        v-if="stage === 'looked' && due > 0"
        v-model="reason"
        label="Why"
        hint="It stands in the history of each response that is corrected. New ones come in as by the address of the form: its limits hold, and what happens by itself happens."
        required
      />
    </template>
    <template #actions>
      <template v-if="isBusy"><v-btn @click="stop">Stop</v-btn></template>
      <template v-else>
        <v-btn @click="emit('close')">{{ stage === 'taken' ? 'Close' : 'Leave it' }}</v-btn>
        <v-btn
          v-if="stage === 'looked' && due > 0"
          :disabled="reason.trim() === ''"
          @click="bringIn"
          >Bring {{ due }} in</v-btn
        >
      </template>
    </template>
  </PlainDialog>
</template>

<style scoped>
.rows {
  list-style: none;
  padding: 0;
  max-height: 320px;
  overflow-y: auto;
  display: grid;
  gap: 8px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
