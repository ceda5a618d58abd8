<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import { cellText, shownColumns } from '#core/lists/cells'
import type { RowOrder } from '#core/lists/view'
import { useCellEdit } from '~/composables/lists/useCellEdit'
import { useGridEdits } from '~/composables/lists/useGridEdits'
import { useGridKeys } from '~/composables/lists/useGridKeys'
import { useGridSelection } from '~/composables/lists/useGridSelection'
import { ROW_HEIGHT, useRowWindow } from '~/composables/lists/useRowWindow'

/** The rows of a list as a grid: typed, pasted in blocks, filled down, sorted and filtered to look at. Only what is near the screen is drawn. */
const props = defineProps<{
  list: ChoiceList
  view: readonly number[]
  marked: ReadonlyMap<number, string>
  sorted: RowOrder | null
}>()
const emit = defineEmits<{ sort: [column: string]; table: [text: string] }>()
const columns = computed(() => shownColumns(props.list))
const scroller = useTemplateRef('scroller')
const { from, shown, linesOnScreen, revealLine, scrollToTop } = useRowWindow(scroller, () => props.view)
const { say, sayDone } = useSaid()
const { at, box, isSelected, isHere, goTo, selectAll, shiftCorner, startAt, reset } = useGridSelection(
  () => ({ lines: props.view.length, columns: columns.value.length }),
)
const grid = {
  list: () => props.list,
  view: () => props.view,
  columns: () => columns.value,
  say,
  sayDone,
}
const edits = useGridEdits({ ...grid, box: () => box.value })
const { setCell } = useCellEdit(grid)
watch(
  () => props.list.code,
  () => {
    reset()
    scrollToTop()
  },
)

/** What is being typed into the cell that has the focus; null while nothing is. */
const typed = ref<string | null>(null)
const isTypedInto = (line: number, column: number) => typed.value !== null && isHere(line, column)
const input = useTemplateRef('input')
async function begin(text?: string) {
  const column = columns.value[at.value.column]
  typed.value = text ?? cellText(edits.rowAt(at.value.line), column?.code ?? '')
  await nextTick()
  input.value?.[0]?.focus()
}
const reveal = () => revealLine(at.value.line)
function go(lines: number, cells: number, stretch = false) {
  goTo({ line: at.value.line + lines, column: at.value.column + cells }, stretch)
  reveal()
}
function commit(lines = 0, cells = 0) {
  if (typed.value !== null) setCell(at.value, typed.value)
  typed.value = null
  go(lines, cells)
}
function leaveTyping() {
  typed.value = null
  reveal()
}
function insert() {
  edits.insertBelow(at.value.line)
  go(1, 0)
}
function move(by: 1 | -1) {
  if (props.sorted) {
    say('Rows are moved in their own order: take the sorting away first.')
    return
  }
  if (!edits.moveRows(by)) return
  shiftCorner(by)
  go(by, 0, true)
}
function point(event: MouseEvent, line: number, column: number) {
  if (typed.value !== null) commit()
  goTo({ line, column }, event.shiftKey)
  reveal()
}
function copy(event: ClipboardEvent) {
  if (typed.value !== null) return
  event.preventDefault()
  event.clipboardData?.setData('text/plain', edits.copied())
}
function paste(event: ClipboardEvent) {
  if (typed.value !== null) return
  event.preventDefault()
  const text = event.clipboardData?.getData('text/plain') ?? ''
  // A whole table into a list without rows: what its columns are is asked first.
  if (props.list.rows.length === 0 && text.includes('\t')) return emit('table', text)
  edits.paste(text)
  startAt(box.value.top)
}
const onKey = useGridKeys({
  ...{ go, commit, leaveTyping, insert, move, selectAll, clear: edits.clear, fillDown: edits.fillDown },
  isTyping: () => typed.value !== null,
  begin: text => void begin(text),
  isAtEdge: backwards => at.value.column === (backwards ? 0 : columns.value.length - 1),
  size: () => ({
    lines: props.view.length,
    columns: columns.value.length,
    linesOnScreen: linesOnScreen.value,
  }),
})
defineExpose({
  retire: edits.retire,
  mark: edits.mark,
  remove: edits.remove,
  insert,
  reveal: (position: number) => {
    goTo({ line: props.view.indexOf(position), column: 1 })
    reveal()
  },
})

/** What of the selection touches a line; a line is drawn anew only when this or its row changes. */
function touch(line: number): string {
  const { top, bottom, left, right } = box.value
  if (line < top || line > bottom) return ''
  const here = line === at.value.line ? `${at.value.column}:${typed.value}` : ':'
  return `${left}:${right}:${here}`
}
const WIDTHS: Readonly<Record<string, string>> = {
  code: '130px',
  label: 'minmax(180px, 2fr)',
  remark: 'minmax(180px, 2fr)',
}
const template = computed(() => {
  const widths = columns.value.map(c => WIDTHS[c.code] ?? 'minmax(112px, 1fr)')
  return `56px ${widths.join(' ')}`
})
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
      @keydown="onKey"
      @copy="copy"
      @paste="paste"
    >
      <ListGridHeads
        :columns="columns"
        :sorted="sorted"
        :template="template"
        @sort="emit('sort', $event)"
      />
      <div
        :style="{ height: `${(view.length + 1) * ROW_HEIGHT}px`, position: 'relative' }"
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
          :style="{ gridTemplateColumns: template, transform: `translateY(${(from + i) * ROW_HEIGHT}px)` }"
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
            :class="{ in: isSelected(from + i, j), code: c.code === 'code', numeric: c.type === 'number' }"
            :aria-selected="isSelected(from + i, j)"
            :data-here="isHere(from + i, j) ? '' : undefined"
            :tabindex="isHere(from + i, j) ? 0 : -1"
            @mousedown="point($event, from + i, j)"
            @dblclick="begin()"
          >
            <input
              v-if="isTypedInto(from + i, j)"
              ref="input"
              v-model="typed"
              :aria-label="`${c.label} of row ${position + 1}`"
              @blur="commit()"
              @mousedown.stop
            />
            <template v-else>{{ cellText(list.rows[position], c.code) }}</template>
          </span>
        </div>
        <div
          class="line fresh"
          role="row"
          :aria-rowindex="view.length + 2"
          :style="{ gridTemplateColumns: template, transform: `translateY(${view.length * ROW_HEIGHT}px)` }"
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
            :class="{ in: isHere(view.length, j) }"
            :data-here="isHere(view.length, j) ? '' : undefined"
            :tabindex="isHere(view.length, j) ? 0 : -1"
            :aria-label="c.code === 'label' ? undefined : `${c.label} of a new row`"
            @mousedown="point($event, view.length, j)"
            @dblclick="begin()"
          >
            <input
              v-if="isTypedInto(view.length, j)"
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
.retired .cell:not(.number) {
  text-decoration: line-through;
  color: var(--slate);
}
.wrong .number {
  color: var(--weld);
  font-weight: 600;
}
.note .number {
  background: var(--woad-wash);
}
.check .number {
  background: var(--weld-wash);
}
.problem .number {
  background: var(--madder-wash);
}
.done .number {
  background: var(--verdigris-wash);
}
</style>
