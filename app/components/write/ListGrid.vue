<script setup lang="ts">
import { readCell } from '#core/lists/table'
import { changeEdits, insertEdit, moveRowsEdits } from '#core/lists/changes'
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { MARKS } from '#core/form/definition'
import type { ChoiceList, Row } from '#core/form/choiceLists'
import { columnsOf } from '#core/form/types'
import type { Address } from '#core/form/walk'
import type { Edit } from '#core/form/edits'

/** The rows of a list as a grid: typed, pasted in blocks, filled down, sorted and filtered to look at. Only what is near the screen is drawn. */
const props = defineProps<{
  list: ChoiceList
  view: readonly number[]
  marked: ReadonlyMap<number, string>
  sorted: { column: string; down: boolean } | null
}>()
const emit = defineEmits<{ sort: [column: string] }>()
const draft = useDraft()
const ROW = 28
const TYPE_WORDS = { text: '', number: 'number', yesNo: 'yes / no', date: 'date' } as const
const EXTRA = 8
const address = computed((): Address => `list/${props.list.code}`)
const columns = computed(() => [
  { code: 'code', label: 'Code', type: 'text' as const },
  { code: 'label', label: 'Label', type: 'text' as const },
  ...columnsOf(props.list),
  { code: 'remark', label: 'Remark (not shown)', type: 'text' as const },
])
const scroller = useTemplateRef('scroller')
const top = ref(0)
const tall = ref(500)
const from = computed(() => Math.max(0, Math.floor(top.value / ROW) - EXTRA))
const shown = computed(() =>
  props.view.slice(from.value, from.value + Math.ceil(tall.value / ROW) + 2 * EXTRA),
)
function scrolled() {
  if (scroller.value) [top.value, tall.value] = [scroller.value.scrollTop, scroller.value.clientHeight]
}
onMounted(scrolled)

/** The cell that has the focus and the corner where the selection began, in lines of the view and columns. */
const at = ref({ line: 0, column: 1 })
const corner = ref({ line: 0, column: 1 })
const typed = ref<string | null>(null)
const box = computed(() => ({
  top: Math.min(at.value.line, corner.value.line),
  bottom: Math.max(at.value.line, corner.value.line),
  left: Math.min(at.value.column, corner.value.column),
  right: Math.max(at.value.column, corner.value.column),
}))
const isIn = (line: number, column: number) =>
  line >= box.value.top && line <= box.value.bottom && column >= box.value.left && column <= box.value.right
watch(
  () => props.list.code,
  () => {
    at.value = corner.value = { line: 0, column: 1 }
    if (scroller.value) scroller.value.scrollTop = 0
  },
)

/** What of the selection touches a line; a line is drawn anew only when this or its row changes. */
const touch = (line: number) =>
  line < box.value.top || line > box.value.bottom
    ? ''
    : `${box.value.left}:${box.value.right}:${line === at.value.line ? at.value.column : ''}:${line === at.value.line ? typed.value : ''}`
const rowAt = (line: number): Row | undefined => props.list.rows[props.view[line] ?? -1]
const textOf = (row: Row | undefined, code: string): string => {
  const cell = row?.[code]
  return cell === null || cell === undefined
    ? ''
    : typeof cell === 'boolean'
      ? cell
        ? 'yes'
        : 'no'
      : String(cell)
}
/** A row with one cell read anew; null where the text does not fit the column. */
function withCell(row: Row, column: (typeof columns.value)[number], text: string): Row | null {
  if (column.code === 'code') return text.trim() ? { ...row, code: text.trim() } : null
  if (column.code === 'label') return { ...row, label: text.trim() }
  const next: Record<string, unknown> = { ...row }
  if (text.trim() === '') Reflect.deleteProperty(next, column.code)
  else {
    const cell = readCell(text, column.type)
    if (cell === null) return null
    next[column.code] = cell
  }
  // The shape is that of a row: one cell was set or taken out.
  return next as Row
}
const said = ref('')
const put = (edits: Edit[], merge: string | null = null) => draft.edit(edits, merge)

function commit(move: [number, number] = [0, 0]) {
  if (typed.value !== null) {
    const row = rowAt(at.value.line)
    const column = columns.value[at.value.column]
    if (row && column && textOf(row, column.code) !== typed.value) {
      const next = withCell(row, column, typed.value)
      if (next)
        put(changeEdits(address.value, props.list.rows, new Map([[props.view[at.value.line] ?? -1, next]])))
      else said.value = `“${typed.value}” does not fit the column ${column.label}.`
    } else if (!row && column && typed.value.trim() !== '') addRow({ [column.code]: typed.value.trim() })
  }
  typed.value = null
  go(...move)
}
function addRow(cells: Record<string, string>) {
  const label = cells.label ?? cells.code ?? ''
  const code = cells.code ?? freeCode(codeFromLabel(label, 'row'), new Set(props.list.rows.map(r => r.code)))
  put([insertEdit(address.value, props.list.rows.length, [{ ...cells, code, label }])])
}
function go(lines: number, cells: number, stretch = false) {
  at.value = {
    line: Math.max(0, Math.min(props.view.length, at.value.line + lines)),
    column: Math.max(0, Math.min(columns.value.length - 1, at.value.column + cells)),
  }
  if (!stretch) corner.value = at.value
  reveal()
}
function reveal() {
  const el = scroller.value
  if (!el) return
  const y = at.value.line * ROW
  if (y < el.scrollTop) el.scrollTop = y
  else if (y + ROW > el.scrollTop + el.clientHeight - ROW) el.scrollTop = y + 2 * ROW - el.clientHeight
  scrolled()
  void nextTick(() => el.querySelector<HTMLElement>('[data-here]')?.focus({ preventScroll: true }))
}
const input = useTemplateRef('input')
function begin(text?: string) {
  typed.value = text ?? textOf(rowAt(at.value.line), columns.value[at.value.column]?.code ?? '')
  void nextTick(() => input.value?.[0]?.focus())
}
const chosen = computed(() => props.view.slice(box.value.top, box.value.bottom + 1))
function change(how: (row: Row, line: number) => Row | null) {
  const changes = new Map<number, Row | null>()
  chosen.value.forEach((position, i) => {
    const row = props.list.rows[position]
    if (row) changes.set(position, how(row, i))
  })
  put(changeEdits(address.value, props.list.rows, changes))
}
function clear() {
  const wiped = columns.value
    .slice(box.value.left, box.value.right + 1)
    .filter(c => c.code !== 'code' && c.code !== 'label')
  change(row => wiped.reduce<Row>((r, c) => withCell(r, c, '') ?? r, row))
}
function fillDown() {
  const first = rowAt(box.value.top)
  if (!first) return
  const down = columns.value.slice(box.value.left, box.value.right + 1).filter(c => c.code !== 'code')
  change((row, i) =>
    i === 0 ? row : down.reduce<Row>((r, c) => withCell(r, c, textOf(first, c.code)) ?? r, row),
  )
}
const retire = () => change(({ retired, ...row }) => (retired ? row : { ...row, retired: true }))
const mark = (colour: (typeof MARKS)[number] | null) =>
  change(({ mark: _, ...row }) => (colour ? { ...row, mark: colour } : row))
const remove = () => change(() => null)
function insert() {
  const position = props.view[at.value.line] ?? props.list.rows.length
  const code = freeCode('row', new Set(props.list.rows.map(r => r.code)))
  put([insertEdit(address.value, Math.min(props.list.rows.length, position + 1), [{ code, label: '' }])])
  go(1, 0)
}
function move(by: 1 | -1) {
  if (props.sorted) {
    said.value = 'Rows are moved in their own order: take the sorting away first.'
    return
  }
  const edits = moveRowsEdits(address.value, props.list.rows, chosen.value, by)
  if (edits.length === 0 || !put(edits)) return
  corner.value = { ...corner.value, line: corner.value.line + by }
  go(by, 0, true)
}
function copy(event: ClipboardEvent) {
  if (typed.value !== null) return
  const lines = chosen.value.map(position =>
    columns.value
      .slice(box.value.left, box.value.right + 1)
      .map(c => textOf(props.list.rows[position], c.code).replaceAll(/[\t\n]/g, ' '))
      .join('\t'),
  )
  event.clipboardData?.setData('text/plain', lines.join('\n'))
  event.preventDefault()
}
/** A pasted block goes over the cells from the selection’s corner on; what reaches beyond the last row becomes rows. */
function paste(event: ClipboardEvent) {
  if (typed.value !== null) return
  event.preventDefault()
  const block = (event.clipboardData?.getData('text/plain') ?? '')
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map(l => l.split('\t'))
  const changes = new Map<number, Row | null>()
  const fresh: Row[] = []
  const taken = new Set(props.list.rows.map(r => r.code))
  let misfits = 0
  block.forEach((cells, i) => {
    const position = props.view[box.value.top + i]
    let row: Row =
      position === undefined
        ? { code: '', label: '' }
        : (props.list.rows[position] ?? { code: '', label: '' })
    cells.forEach((text, j) => {
      const column = columns.value[box.value.left + j]
      const next = column ? withCell(row, column, text) : null
      if (column && !next && text.trim()) misfits += 1
      row = next ?? row
    })
    if (position !== undefined) changes.set(position, row)
    else if (row.code || row.label) {
      const code = row.code || freeCode(codeFromLabel(row.label, 'row'), taken)
      taken.add(code)
      fresh.push({ ...row, code, label: row.label || code })
    }
  })
  const edits = [
    ...(fresh.length > 0 ? [insertEdit(address.value, props.list.rows.length, fresh)] : []),
    ...changeEdits(address.value, props.list.rows, changes),
  ]
  put(edits)
  said.value = `${block.length} ${block.length === 1 ? 'line' : 'lines'} pasted${misfits > 0 ? `; ${misfits} ${misfits === 1 ? 'cell does' : 'cells do'} not fit the column and were left` : ''}.`
  corner.value = { ...at.value, line: box.value.top }
}
const STEPS: Readonly<Record<string, [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}
function keys(event: KeyboardEvent) {
  const step = STEPS[event.key]
  const command = event.ctrlKey || event.metaKey
  if (typed.value !== null) {
    if (event.key === 'Enter') commit([1, 0])
    else if (event.key === 'Tab') commit([0, event.shiftKey ? -1 : 1])
    else if (event.key === 'Escape') {
      typed.value = null
      reveal()
    } else return
  } else if (step && event.altKey && step[0] !== 0) move(step[0] > 0 ? 1 : -1)
  else if (step)
    go(
      step[0] * (command ? props.view.length : 1),
      step[1] * (command ? columns.value.length : 1),
      event.shiftKey,
    )
  else if (event.key === 'PageDown' || event.key === 'PageUp')
    go((event.key === 'PageDown' ? 1 : -1) * Math.floor(tall.value / ROW), 0, event.shiftKey)
  else if (event.key === 'Home' || event.key === 'End')
    go(0, (event.key === 'End' ? 1 : -1) * columns.value.length, event.shiftKey)
  else if (event.key === 'Tab') {
    if (
      (event.shiftKey && at.value.column === 0) ||
      (!event.shiftKey && at.value.column === columns.value.length - 1)
    )
      return
    go(0, event.shiftKey ? -1 : 1)
  } else if (event.key === 'Enter' && command) insert()
  else if (event.key === 'Enter' || event.key === 'F2') begin()
  else if (event.key === 'Delete' || event.key === 'Backspace') clear()
  else if (command && event.key.toLowerCase() === 'd') fillDown()
  else if (command && event.key.toLowerCase() === 'a') {
    corner.value = { line: 0, column: 0 }
    at.value = { line: Math.max(0, props.view.length - 1), column: columns.value.length - 1 }
  } else if (event.key.length === 1 && !command && !event.altKey) begin(event.key)
  else return
  event.preventDefault()
  event.stopPropagation()
}
function point(event: MouseEvent, line: number, column: number) {
  if (typed.value !== null) commit()
  at.value = { line, column }
  if (!event.shiftKey) corner.value = at.value
  reveal()
}
defineExpose({
  retire,
  mark,
  remove,
  insert,
  reveal: (position: number) => {
    at.value = corner.value = { line: Math.max(0, props.view.indexOf(position)), column: 1 }
    reveal()
  },
})
const template = computed(
  () =>
    `56px ${columns.value.map(c => (c.code === 'code' ? '130px' : c.code === 'label' || c.code === 'remark' ? 'minmax(180px, 2fr)' : 'minmax(112px, 1fr)')).join(' ')}`,
)
</script>

<template>
  <div class="grid-wrap">
    <div
      ref="scroller"
      class="grid"
      role="grid"
      :aria-rowcount="list.rows.length + 1"
      :aria-colcount="columns.length + 1"
      :aria-label="`Rows of ${list.title || list.code}`"
      aria-multiselectable="true"
      @scroll.passive="scrolled"
      @keydown="keys"
      @copy="copy"
      @paste="paste"
    >
      <div
        class="line heads"
        role="row"
        aria-rowindex="1"
        :style="{ gridTemplateColumns: template }"
      >
        <span
          class="cell number"
          role="columnheader"
          >#</span
        >
        <span
          v-for="c in columns"
          :key="c.code"
          class="cell"
          role="columnheader"
          :aria-sort="sorted?.column === c.code ? (sorted.down ? 'descending' : 'ascending') : 'none'"
          ><button
            class="head"
            tabindex="-1"
            @click="emit('sort', c.code)"
          >
            {{ c.label
            }}<span
              v-if="c.type !== 'text'"
              class="quiet kind"
              >{{ TYPE_WORDS[c.type] }}</span
            >{{ sorted?.column === c.code ? (sorted.down ? ' ↓' : ' ↑') : '' }}
          </button></span
        >
      </div>
      <div
        :style="{ height: `${(view.length + 1) * ROW}px`, position: 'relative' }"
        role="rowgroup"
      >
        <div
          v-for="(position, i) in shown"
          :key="position"
          v-memo="[list.rows[position], from + i, columns, template, marked.get(position), touch(from + i)]"
          class="line"
          role="row"
          :aria-rowindex="from + i + 2"
          :class="[
            list.rows[position]?.mark,
            { retired: list.rows[position]?.retired, wrong: marked.has(position) },
          ]"
          :style="{ gridTemplateColumns: template, transform: `translateY(${(from + i) * ROW}px)` }"
        >
          <span
            class="cell number num"
            role="rowheader"
            :title="marked.get(position)"
            >{{ marked.has(position) ? '▲ ' : '' }}{{ position + 1 }}</span
          >
          <span
            v-for="(c, j) in columns"
            :key="c.code"
            class="cell"
            role="gridcell"
            :aria-colindex="j + 2"
            :class="{ in: isIn(from + i, j), code: c.code === 'code', numeric: c.type === 'number' }"
            :aria-selected="isIn(from + i, j)"
            :data-here="at.line === from + i && at.column === j ? '' : undefined"
            :tabindex="at.line === from + i && at.column === j ? 0 : -1"
            @mousedown="point($event, from + i, j)"
            @dblclick="begin()"
          >
            <input
              v-if="typed !== null && at.line === from + i && at.column === j"
              ref="input"
              v-model="typed"
              :aria-label="`${c.label} of row ${position + 1}`"
              @blur="commit()"
              @mousedown.stop
            />
            <template v-else>{{ textOf(list.rows[position], c.code) }}</template>
          </span>
        </div>
        <div
          class="line fresh"
          role="row"
          :aria-rowindex="view.length + 2"
          :style="{ gridTemplateColumns: template, transform: `translateY(${view.length * ROW}px)` }"
        >
          <span
            class="cell number quiet"
            role="rowheader"
            >+</span
          >
          <span
            v-for="(c, j) in columns"
            :key="c.code"
            class="cell"
            role="gridcell"
            :class="{ in: at.line === view.length && at.column === j }"
            :data-here="at.line === view.length && at.column === j ? '' : undefined"
            :tabindex="at.line === view.length && at.column === j ? 0 : -1"
            :aria-label="c.code === 'label' ? undefined : `${c.label} of a new row`"
            @mousedown="point($event, view.length, j)"
            @dblclick="begin()"
          >
            <input
              v-if="typed !== null && at.line === view.length && at.column === j"
              ref="input"
              v-model="typed"
              :aria-label="`${c.label} of a new row`"
              @blur="commit()"
              @mousedown.stop
            />
            <span
              v-else-if="c.code === 'label'"
              class="quiet"
              >type here, or paste rows</span
            >
          </span>
        </div>
      </div>
    </div>
    <p
      class="hidden-words"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="said"
      class="small quiet said"
    >
      {{ said }}
    </p>
  </div>
</template>

<style scoped>
.grid-wrap {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
}
.grid {
  overflow: auto;
  position: relative;
  background: var(--paper);
  border: 1px solid var(--line);
  min-height: 120px;
  font-size: 13px;
}
.line {
  display: grid;
  height: 28px;
  min-width: 640px;
}
.heads {
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--linen);
  font-weight: 600;
  border-bottom: 1px solid var(--line);
}
.line:not(.heads) {
  position: absolute;
  left: 0;
  right: 0;
  top: 0;
  border-bottom: 1px solid var(--line);
}
.cell {
  padding: 4px 8px;
  border-right: 1px solid var(--line);
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  min-width: 0;
  cursor: cell;
}
.cell.in {
  background: var(--verdigris-wash);
}
.cell[data-here] {
  outline: 2px solid var(--verdigris);
  outline-offset: -2px;
}
.cell.code {
  font-family: var(--code-font);
}
.cell.numeric {
  text-align: right;
}
.number {
  color: var(--slate);
  cursor: default;
}
.cell input {
  width: 100%;
  height: 20px;
  border: 0;
  padding: 0;
  margin: 0;
  background: var(--paper);
  font: inherit;
  outline: none;
}
.kind {
  font-weight: 400;
  margin-left: 6px;
}
.head {
  border: 0;
  background: none;
  font: inherit;
  padding: 0;
  cursor: pointer;
  width: 100%;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.retired .cell:not(.number) {
  text-decoration: line-through;
  color: var(--slate);
}
.wrong .number {
  color: var(--weld);
  font-weight: 600;
}
.woad .number {
  background: var(--woad-wash);
}
.weld .number {
  background: var(--weld-wash);
}
.madder .number {
  background: var(--madder-wash);
}
.verdigris .number {
  background: var(--verdigris-wash);
}
.said {
  padding: 4px 8px;
}
</style>
