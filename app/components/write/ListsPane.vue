<script setup lang="ts">
import Papa from 'papaparse'
import { changeEdits, replaceEdit } from '#core/lists/changes'
import { groupedOptions, splitLevels, usersOf } from '#core/lists/levels'
import type { RowProblem } from '#core/lists/integrity'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { MARKS } from '#core/form/definition'
import { COLUMN_TYPES, type ChoiceList, type ColumnKind, type Row } from '#core/form/choiceLists'
import { columnsOf } from '#core/form/types'
import type { Edit } from '#core/form/edits'
import type { Address } from '#core/form/walk'

/** The choice lists of the form: each a table that is typed, pasted, brought in and checked. */
const draft = useDraft()
const lists = useLists()
const route = useRoute()
onMounted(() => lists.start())
const all = computed(() => draft.form?.lists ?? [])
const chosen = ref<string | null>(typeof route.query.list === 'string' ? route.query.list : null)
const list = computed<ChoiceList | null>(
  () => all.value.find(l => l.code === chosen.value) ?? all.value[0] ?? null,
)
const address = computed((): Address => `list/${list.value?.code ?? ''}`)
const problems = computed(() => (list.value ? lists.of(list.value.code) : []))
const users = computed(() => (draft.form && list.value ? usersOf(draft.form, list.value.code) : []))
const grid = useTemplateRef('grid')
const panel = ref<'import' | 'tree' | 'columns' | 'regions' | 'shared' | null>(null)
const show = (p: typeof panel.value) => {
  panel.value = panel.value === p ? null : p
}
watch(
  () => list.value?.code,
  () => {
    panel.value = null
    sorted.value = null
    only.value = 'all'
  },
)
const valueOf = (event: Event) =>
  event.target instanceof HTMLInputElement ||
  event.target instanceof HTMLSelectElement ||
  event.target instanceof HTMLTextAreaElement
    ? event.target.value
    : ''
const change = (set: Record<string, unknown>, merge: string | null = null) =>
  draft.edit([{ do: 'change', what: address.value, set }], merge)

const name = ref('')
function addList() {
  const title = name.value.trim()
  if (!title) return
  const code = freeCode(codeFromLabel(title, 'list'), new Set(all.value.map(l => l.code)))
  if (!draft.edit([{ do: 'insert', into: 'lists', at: all.value.length, node: { code, title, rows: [] } }]))
    return
  chosen.value = code
  name.value = ''
}
/** A new code, and every question that takes its choices from the list with it. */
function recode(event: Event) {
  const code = valueOf(event).trim()
  const own = list.value
  if (!own || !code || code === own.code) return
  const edits: Edit[] = draft.places.flatMap((p): Edit[] =>
    p.kind === 'question' && 'list' in p.node && p.node.list === own.code
      ? [{ do: 'change', what: p.address, set: { list: code } }]
      : [],
  )
  if (draft.edit([...edits, { do: 'change', what: address.value, set: { code } }])) chosen.value = code
}
function removeList() {
  if (list.value && users.value.length === 0) draft.edit([{ do: 'remove', what: address.value }])
}

/** What is looked at: found, filtered, sorted; the rows themselves keep their order. */
const search = ref('')
const only = ref<'all' | 'live' | 'retired' | 'marked' | 'problems'>('all')
const sorted = ref<{ column: string; down: boolean } | null>(null)
const marked = computed(
  () => new Map(problems.value.flatMap(p => p.rows.map(at => [at, p.sentence] as const))),
)
const view = computed((): number[] => {
  const rows = list.value?.rows ?? []
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const codes = ['code', 'label', 'remark', ...(list.value ? columnsOf(list.value) : []).map(c => c.code)]
  const fits = (row: Row, at: number) => {
    if (only.value === 'live' && row.retired === true) return false
    if (only.value === 'retired' && row.retired !== true) return false
    if (only.value === 'marked' && row.mark === undefined) return false
    if (only.value === 'problems' && !marked.value.has(at)) return false
    if (words.length === 0) return true
    const text = codes
      .map(c => row[c] ?? '')
      .join(' ')
      .toLowerCase()
    return words.every(w => text.includes(w))
  }
  const found: number[] = []
  for (let i = 0; i < rows.length; i++) if (rows[i] && fits(rows[i] as Row, i)) found.push(i)
  const by = sorted.value
  if (!by) return found
  const key = (at: number) => rows[at]?.[by.column] ?? ''
  const compare = new Intl.Collator(draft.form?.language ?? 'en', { numeric: true }).compare
  return found.sort(
    (a, b) =>
      (by.down ? -1 : 1) *
      (typeof key(a) === 'number' && typeof key(b) === 'number'
        ? Number(key(a)) - Number(key(b))
        : compare(String(key(a)), String(key(b)))),
  )
})
function sort(column: string) {
  const now = sorted.value
  sorted.value = now?.column !== column ? { column, down: false } : now.down ? null : { column, down: true }
}
function keepOrder() {
  const own = list.value
  if (!own || !sorted.value) return
  const inView = new Set(view.value)
  const rows = [...view.value.flatMap(at => own.rows[at] ?? []), ...own.rows.filter((_, i) => !inView.has(i))]
  if (draft.edit([replaceEdit(address.value, own.rows, rows)])) sorted.value = null
}
function mend(problem: RowProblem) {
  if (list.value && problem.mend)
    draft.edit(
      changeEdits(address.value, list.value.rows, new Map(problem.mend.rows.map(r => [r.at, r.row]))),
    )
}
function look(problem: RowProblem) {
  only.value = 'problems'
  sorted.value = null
  void nextTick(() => grid.value?.reveal(problem.rows[0] ?? 0))
}

/** Columns: added, renamed with every cell and rule, typed, taken away. */
const column = ref('')
const putColumns = (next: ChoiceList['columns'], merge: string | null = null) =>
  change({ columns: next && next.length > 0 ? next : null }, merge)
function addColumn() {
  const label = column.value.trim()
  if (!label || !list.value) return
  const code = freeCode(
    codeFromLabel(label, 'column'),
    new Set(['code', 'label', 'retired', 'mark', 'remark', ...columnsOf(list.value).map(c => c.code)]),
  )
  putColumns([...(list.value.columns ?? []), { code, ...(code === label ? {} : { label }) }])
  column.value = ''
}
const changeColumn = (i: number, part: { label?: string; type?: ColumnKind }) =>
  putColumns(
    (list.value?.columns ?? []).map((c, j) =>
      j !== i ? c : { ...(typeof c === 'string' ? { code: c } : c), ...part },
    ),
    `column${i}`,
  )
function removeColumn(i: number) {
  const own = list.value
  const gone = own && columnsOf(own)[i]
  if (!own || !gone) return
  const rows = own.rows.map((row): Row => {
    const next: Record<string, unknown> = { ...row }
    Reflect.deleteProperty(next, gone.code)
    return next as Row
  })
  draft.edit([
    { do: 'change', what: address.value, set: { columns: (own.columns ?? []).toSpliced(i, 1) } },
    replaceEdit(address.value, own.rows, rows),
  ])
}

/** One table with a column for each level becomes linked lists. */
const levels = ref<string[]>([])
function split() {
  const own = list.value
  if (!own || levels.value.length === 0) return
  const made = splitLevels(own, levels.value, new Set(all.value.map(l => l.code)))
  const last = made.at(-1)
  if (!last) return
  const at = all.value.indexOf(own)
  chosen.value = own.code
  draft.edit([
    replaceEdit(address.value, own.rows, last.rows),
    { do: 'change', what: address.value, set: { columns: last.columns ?? null } },
    ...made.slice(0, -1).map((node, i): Edit => ({ do: 'insert', into: 'lists', at: at + i, node })),
  ])
  levels.value = []
  panel.value = 'tree'
}
/** Choices pasted region by region become one list with a column for the region, and a list of the regions. */
const regions = ref('')
const groups = computed(() => groupedOptions(regions.value))
function addRegions() {
  const own = list.value
  const first = groups.value[0]
  if (!own || !first) return
  const parents = freeCode(`${own.code}_groups`, new Set(all.value.map(l => l.code)))
  const heads = groups.value.map(g => ({ code: codeFromLabel(g.head, 'group'), label: g.head }))
  const taken = new Set(own.rows.map(r => r.code))
  const rows = groups.value.flatMap((g, i) =>
    g.labels.map((label): Row => {
      const code = freeCode(codeFromLabel(label, 'row'), taken)
      taken.add(code)
      return { code, label, group: heads[i]?.code ?? '' }
    }),
  )
  chosen.value = own.code
  const columns = columnsOf(own).some(c => c.code === 'group')
    ? own.columns
    : [...(own.columns ?? []), 'group']
  draft.edit([
    { do: 'change', what: address.value, set: { columns } },
    { do: 'splice', what: address.value, at: own.rows.length, remove: 0, rows },
    { do: 'insert', into: 'lists', at: all.value.indexOf(own), node: { code: parents, rows: heads } },
  ])
  regions.value = ''
  panel.value = 'tree'
}

/** Cells that a spreadsheet would read as a formula are made safe; reading the file in again takes that off. */
const safe = (cell: unknown) =>
  typeof cell === 'string' && /^[=+\-@\t＝＋－＠]/.test(cell) ? `'${cell}` : (cell ?? '')
const table = (own: ChoiceList) => {
  const codes = ['code', 'label', ...columnsOf(own).map(c => c.code), 'retired', 'remark']
  return [codes, ...own.rows.map(row => codes.map(c => (row[c] === true ? 'yes' : safe(row[c]))))]
}
function save(blob: Blob, file: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = file
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
const exporting = ref(false)
function exportCsv() {
  if (list.value)
    save(
      new Blob(['\uFEFF', Papa.unparse(table(list.value))], { type: 'text/csv' }),
      `${list.value.code}.csv`,
    )
}
async function exportXlsx() {
  if (!list.value) return
  exporting.value = true
  const { default: write } = await import('write-excel-file/browser')
  const data = table(list.value).map(line =>
    line.map(cell => ({
      value: typeof cell === 'number' || typeof cell === 'boolean' ? cell : String(cell),
    })),
  )
  save(await write(data).toBlob(), `${list.value.code}.xlsx`)
  exporting.value = false
}
</script>

<template>
  <div class="lists">
    <aside
      class="side"
      aria-label="Choice lists"
    >
      <button
        v-for="l in all"
        :key="l.code"
        class="pick"
        :aria-pressed="list === l"
        @click="chosen = l.code"
      >
        <span
          >{{ l.title || l.code
          }}<span
            v-if="lists.of(l.code).length > 0"
            class="risk"
            :title="`${lists.of(l.code).length} things are wrong`"
          >
            ▲</span
          ><span
            v-if="l.shared"
            class="quiet small"
          >
            shared</span
          ></span
        ><b class="num">{{ l.rows.length }}</b>
      </button>
      <form
        class="row-flex"
        @submit.prevent="addList"
      >
        <input
          v-model="name"
          class="field"
          placeholder="Harbours"
          aria-label="Name of a new list"
          maxlength="80"
        /><button
          class="text-button"
          :disabled="!name.trim()"
        >
          + list
        </button>
      </form>
      <Suspense
        ><SharedLists
          :list="list"
          @taken="chosen = $event"
      /></Suspense>
    </aside>
    <section
      v-if="list"
      class="main"
      :aria-label="`The list ${list.title || list.code}`"
    >
      <div class="row-flex heads">
        <input
          class="field title"
          :value="list.title ?? list.code"
          aria-label="Title of the list"
          maxlength="200"
          @input="change({ title: valueOf($event) || null }, 'list-title')"
        />
        <input
          class="field code"
          :value="list.code"
          aria-label="Code of the list"
          maxlength="60"
          @change="recode"
        />
        <span class="small quiet">{{
          users.length === 0 ? 'no question uses it yet' : `used by ${users.join(', ')}`
        }}</span>
        <span class="spread" />
        <button
          class="text-button"
          :disabled="users.length > 0"
          :title="users.length > 0 ? 'Questions use it; let them use another first.' : ''"
          @click="removeList"
        >
          Delete the list
        </button>
      </div>
      <div class="row-flex tools">
        <input
          v-model="search"
          class="field"
          placeholder="Find"
          aria-label="Find in the list"
        />
        <select
          v-model="only"
          class="field"
          aria-label="Which rows"
        >
          <option value="all">all rows</option>
          <option value="live">offered</option>
          <option value="retired">retired</option>
          <option value="marked">marked</option>
          <option value="problems">with problems</option>
        </select>
        <span class="small quiet num">{{
          view.length === list.rows.length
            ? `${list.rows.length} rows`
            : `${view.length} of ${list.rows.length}`
        }}</span>
        <button
          v-if="sorted"
          class="text-button"
          @click="keepOrder"
        >
          Keep this order
        </button>
        <span class="spread" />
        <button
          class="text-button"
          :aria-expanded="panel === 'columns'"
          @click="show('columns')"
        >
          Columns
        </button>
        <button
          class="text-button"
          :aria-expanded="panel === 'tree'"
          @click="show('tree')"
        >
          Tree
        </button>
        <button
          class="text-button"
          :aria-expanded="panel === 'regions'"
          @click="show('regions')"
        >
          Paste by group
        </button>
        <button
          class="text-button"
          :aria-expanded="panel === 'import'"
          @click="show('import')"
        >
          Import
        </button>
        <button
          class="text-button"
          @click="exportCsv"
        >
          CSV
        </button>
        <button
          class="text-button"
          :disabled="exporting"
          @click="exportXlsx"
        >
          XLSX
        </button>
      </div>
      <div class="row-flex tools small">
        <span class="quiet">Rows:</span>
        <button
          class="text-button"
          @click="grid?.insert()"
        >
          Insert below <kbd>Ctrl Enter</kbd>
        </button>
        <button
          class="text-button"
          @click="grid?.retire()"
        >
          Retire / bring back
        </button>
        <button
          class="text-button"
          @click="grid?.remove()"
        >
          Delete
        </button>
        <span class="quiet">mark</span>
        <button
          v-for="m in MARKS"
          :key="m"
          class="swatch"
          :class="m"
          :aria-label="`Mark the rows ${m}`"
          :title="m"
          @click="grid?.mark(m)"
        />
        <button
          class="text-button"
          @click="grid?.mark(null)"
        >
          none
        </button>
      </div>
      <ListImport
        v-if="panel === 'import'"
        :list="list"
        @close="panel = null"
      />
      <div
        v-else-if="panel === 'columns'"
        class="panel"
      >
        <div
          v-for="(c, i) in columnsOf(list)"
          :key="c.code"
          class="row-flex"
        >
          <code>{{ c.code }}</code>
          <input
            class="field"
            :value="c.label"
            :aria-label="`Column ${c.code}: label`"
            maxlength="80"
            @change="changeColumn(i, { label: valueOf($event) })"
          />
          <select
            class="field"
            :value="c.type"
            :aria-label="`Column ${c.code}: what it holds`"
            @change="changeColumn(i, { type: COLUMN_TYPES.find(t => t === valueOf($event)) ?? 'text' })"
          >
            <option value="text">text</option>
            <option value="number">number</option>
            <option value="yesNo">yes / no</option>
            <option value="date">date</option>
          </select>
          <button
            class="text-button"
            @click="removeColumn(i)"
          >
            Remove
          </button>
        </div>
        <form
          class="row-flex"
          @submit.prevent="addColumn"
        >
          <input
            v-model="column"
            class="field"
            placeholder="Depth"
            aria-label="Name of a new column"
            maxlength="60"
          /><button
            class="text-button"
            :disabled="!column.trim()"
          >
            + column
          </button>
        </form>
        <div
          v-if="columnsOf(list).length > 0"
          class="row-flex small"
        >
          <span class="quiet">A flat table with one column for each level? Tick them, outermost first:</span>
          <label
            v-for="c in columnsOf(list)"
            :key="c.code"
            ><input
              v-model="levels"
              type="checkbox"
              :value="c.code"
            />
            {{ c.label }}</label
          >
          <button
            class="text-button"
            :disabled="levels.length === 0"
            @click="split"
          >
            Split into linked lists: {{ [...levels, list.code].join(' → ') }}
          </button>
        </div>
      </div>
      <ListTree
        v-else-if="panel === 'tree'"
        :lists="all"
      />
      <div
        v-else-if="panel === 'regions'"
        class="panel"
      >
        <p class="small quiet">
          Paste choices group by group: a line that ends with a colon, or stands before indented lines, is a
          group.
        </p>
        <textarea
          v-model="regions"
          class="field"
          rows="6"
          aria-label="Choices by group"
          placeholder="North coast:&#10;Saltmarsh Basin&#10;Tern Quay&#10;East coast:&#10;Osier Creek"
        />
        <div class="row-flex">
          <button
            class="plain-button"
            :disabled="groups.length === 0"
            @click="addRegions"
          >
            Add {{ groups.reduce((n, g) => n + g.labels.length, 0) }} rows in {{ groups.length }} groups
          </button>
        </div>
      </div>
      <div
        v-if="problems.length > 0"
        class="problems"
        role="status"
      >
        <p
          v-for="p in problems"
          :key="p.kind + p.sentence"
          class="small"
        >
          ▲ {{ p.sentence }}
          <button
            class="text-button"
            @click="look(p)"
          >
            Show {{ p.count === 1 ? 'it' : 'them' }}
          </button>
          <button
            v-if="p.mend"
            class="text-button"
            @click="mend(p)"
          >
            {{ p.mend.words }}
          </button>
        </p>
      </div>
      <ListGrid
        ref="grid"
        :list="list"
        :view="view"
        :marked="marked"
        :sorted="sorted"
        @sort="sort"
      />
    </section>
    <section
      v-else
      class="main teach"
    >
      <h2>No lists yet</h2>
      <p>
        A list keeps the choices that several questions share, such as harbours or products, with columns that
        rules can use. Name one on the left, then type rows, paste them from a spreadsheet, or import a file.
      </p>
    </section>
  </div>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr);
  min-height: 0;
  flex: 1;
}
.side {
  border-right: 1px solid var(--line);
  padding: 10px;
  overflow-y: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
.side .field {
  width: 90px;
}
.pick {
  display: flex;
  justify-content: space-between;
  border: 0;
  background: none;
  padding: 4px 6px;
  cursor: pointer;
  text-align: left;
  overflow-wrap: anywhere;
}
.pick[aria-pressed='true'] {
  background: var(--soft);
}
.main {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 10px 12px;
  min-width: 0;
  min-height: 0;
}
.main > :last-child {
  flex: 1;
  min-height: 0;
}
.main.teach {
  padding: 40px;
  gap: 12px;
}
.main.teach > * {
  flex: none;
  max-width: 52ch;
}
.title {
  width: 190px;
  font-weight: 600;
}
.code {
  width: 120px;
}
.tools .field {
  width: 140px;
}
.tools {
  gap: 4px 12px;
  flex-wrap: wrap;
}
.heads {
  flex-wrap: wrap;
}
.panel {
  border: 1px solid var(--line);
  padding: 10px;
  display: grid;
  gap: 6px;
  max-height: 260px;
  overflow-y: auto;
  flex: none;
}
.problems {
  background: var(--weld-wash);
  padding: 6px 10px;
  max-height: 90px;
  overflow-y: auto;
  flex: none;
}
.swatch {
  width: 18px;
  height: 18px;
  border: 1px solid var(--control-line);
  cursor: pointer;
}
.swatch.woad {
  background: var(--woad);
}
.swatch.weld {
  background: var(--weld);
}
.swatch.madder {
  background: var(--madder);
}
.swatch.verdigris {
  background: var(--verdigris);
}
</style>
