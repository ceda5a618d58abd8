/** A cell by its line in view and its column. */
export interface GridCell {
  line: number
  column: number
}

/** The rectangle of cells that is selected, edges included. */
export interface GridBox {
  top: number
  bottom: number
  left: number
  right: number
}

const FIRST: GridCell = { line: 0, column: 1 }

/** The cell that has the focus, the corner where the selection began, and what lies between. */
export function useGridSelection(size: () => { lines: number; columns: number }) {
  const at = ref<GridCell>(FIRST)
  const corner = ref<GridCell>(FIRST)
  const box = computed((): GridBox => ({
    top: Math.min(at.value.line, corner.value.line),
    bottom: Math.max(at.value.line, corner.value.line),
    left: Math.min(at.value.column, corner.value.column),
    right: Math.max(at.value.column, corner.value.column),
  }))
  const isSelected = (line: number, column: number): boolean => {
    const { top, bottom, left, right } = box.value
    return line >= top && line <= bottom && column >= left && column <= right
  }
  const isHere = (line: number, column: number): boolean =>
    at.value.line === line && at.value.column === column
  /** Goes to a cell; with `stretch` the selection reaches there. The line after the last is where a row is begun. */
  function goTo({ line, column }: GridCell, stretch = false) {
    const { lines, columns } = size()
    at.value = {
      line: Math.max(0, Math.min(lines, line)),
      column: Math.max(0, Math.min(columns - 1, column)),
    }
    if (!stretch) corner.value = at.value
  }
  function selectAll() {
    const { lines, columns } = size()
    corner.value = { line: 0, column: 0 }
    at.value = { line: Math.max(0, lines - 1), column: columns - 1 }
  }
  const shiftCorner = (lines: number) => (corner.value = { ...corner.value, line: corner.value.line + lines })
  const startAt = (line: number) => (corner.value = { ...at.value, line })
  const reset = () => goTo(FIRST)
  return { at, box, isSelected, isHere, goTo, selectAll, shiftCorner, startAt, reset }
}
