import { AHEAD, BLANK, UNASKED, type Cell } from './readCells'
import type { Measure } from './measures'

/** What is known of a response besides its answers: when it was sent (milliseconds since 1970), to which version, how it stands, and its tray. */
export interface Facts {
  sentAt: number
  release: number
  state: string
  tray: string | null
}

/** The state of a cell that holds values. */
export const ANSWERED = 3

/** What a column holds, as plain data that can be kept and taken up again. */
export interface ColumnParts {
  states: Uint8Array
  values: Float64Array
  texts: readonly string[]
  lists: readonly (readonly number[])[]
}

/** What a table holds besides its columns: whose row each is, and what is known of it. */
export interface TableRows {
  ids: readonly string[]
  facts: readonly Facts[]
}

/** What all responses hold of one measure, row by row: a state, and a value that is a number, or stands in `texts`, or is several, in `lists`. */
export class Column {
  states: Uint8Array = new Uint8Array(0)
  values: Float64Array = new Float64Array(0)
  texts: string[] = []
  lists: (readonly number[])[] = []
  private readonly textAt = new Map<string, number>()
  private readonly listAt = new Map<string, number>()

  constructor(readonly measure: Measure) {
    if (measure.kind === 'choice') for (const { code } of measure.options) this.indexOf(code)
  }

  grow(size: number): void {
    if (this.states.length >= size) return
    const room = Math.max(size, this.states.length * 2, 256)
    const states = new Uint8Array(room)
    states.set(this.states)
    this.states = states
    const values = new Float64Array(room)
    values.set(this.values)
    this.values = values
  }

  set(row: number, cell: Cell): void {
    if (cell === UNASKED || cell === BLANK || cell === AHEAD) {
      this.states[row] = cell
      return
    }
    this.states[row] = ANSWERED
    const held = cell.map(value => (typeof value === 'number' ? value : this.indexOf(value)))
    this.values[row] = this.measure.isSeveral ? this.listOf(held) : (held[0] ?? 0)
  }

  /** The values of a row that holds some; numbers as they are, all else by where it stands in `texts`. */
  valuesAt(row: number): readonly number[] {
    const value = this.values[row] ?? 0
    return this.measure.isSeveral ? (this.lists[value] ?? []) : [value]
  }

  /** What some rows hold, one after the other, and nothing of other rows: no text that stands there alone. */
  partsOf(rows: Int32Array): ColumnParts {
    const only = new Column(this.measure)
    only.grow(rows.length)
    for (const [i, row] of rows.entries()) only.set(i, this.cellAt(row))
    const { states, values, texts, lists } = only
    return { states: states.slice(0, rows.length), values: values.slice(0, rows.length), texts, lists }
  }

  /** A column of what one held before. @throws RangeError where the parts don’t belong together */
  static of(measure: Measure, { states, values, texts, lists }: ColumnParts): Column {
    if (states.length !== values.length)
      throw new RangeError('A column has a state and a value for each row.')
    const column = new Column(measure)
    column.states = states
    column.values = values
    column.texts = [...texts]
    column.lists = [...lists]
    for (const [i, text] of texts.entries()) column.textAt.set(text, i)
    for (const [i, list] of lists.entries()) column.listAt.set(list.join(' '), i)
    return column
  }

  private cellAt(row: number): Cell {
    const state = this.states[row]
    if (state === BLANK || state === AHEAD) return state
    if (state !== ANSWERED) return UNASKED
    const held = this.valuesAt(row)
    return this.isNumeric ? held : held.map(index => this.texts[index] ?? '')
  }

  /** Whether its values are numbers themselves. */
  private get isNumeric(): boolean {
    return this.measure.kind === 'number' || this.measure.kind === 'day'
  }

  private indexOf(text: string): number {
    const known = this.textAt.get(text)
    if (known !== undefined) return known
    this.textAt.set(text, this.texts.length)
    return this.texts.push(text) - 1
  }

  private listOf(values: readonly number[]): number {
    const key = values.join(' ')
    const known = this.listAt.get(key)
    if (known !== undefined) return known
    this.listAt.set(key, this.lists.length)
    return this.lists.push(values) - 1
  }
}

/** The responses of a form, measure by measure, in memory: what summaries are worked out from. */
export class FactTable {
  private readonly rowOf = new Map<string, number>()
  private readonly ids: string[] = []
  private readonly facts: (Facts | null)[] = []

  constructor(
    readonly measures: readonly Measure[],
    readonly columns: readonly Column[] = measures.map(measure => new Column(measure)),
  ) {}

  /** A table of what one held before. @throws RangeError where rows and columns don’t belong together */
  static of({ ids, facts }: TableRows, columns: readonly Column[]): FactTable {
    const table = new FactTable(
      columns.map(column => column.measure),
      columns,
    )
    const isWhole = facts.length === ids.length && columns.every(c => c.states.length === ids.length)
    if (!isWhole) throw new RangeError('A table has facts and cells for each of its rows.')
    for (const [row, id] of ids.entries()) {
      table.rowOf.set(id, table.ids.push(id) - 1)
      table.facts[row] = facts[row] ?? null
    }
    return table
  }

  /** Whose rows some are, and what is known of them, one after the other. */
  rowsOf(rows: Int32Array): TableRows {
    return {
      ids: Array.from(rows, row => this.ids[row] ?? ''),
      facts: Array.from(rows, row => this.factsAt(row)),
    }
  }

  /** How many responses there are. */
  get size(): number {
    return this.rowOf.size
  }

  /** Puts a response in, in place of what it held before. */
  put(id: string, facts: Facts, cells: readonly Cell[]): void {
    const row = this.rowOf.get(id) ?? this.ids.push(id) - 1
    this.rowOf.set(id, row)
    this.facts[row] = facts
    for (const [i, column] of this.columns.entries()) {
      column.grow(row + 1)
      column.set(row, cells[i] ?? UNASKED)
    }
  }

  /** Takes a response out. */
  drop(id: string): void {
    const row = this.rowOf.get(id)
    if (row === undefined) return
    this.rowOf.delete(id)
    this.facts[row] = null
  }

  /** Every response that is in it, by its row. */
  allRows(): Int32Array {
    return Int32Array.from(this.rowOf.values()).sort()
  }

  /** The rows of some responses; those that are not in it are passed over. */
  rowsFor(ids: readonly string[]): Int32Array {
    return Int32Array.from(ids.flatMap(id => this.rowOf.get(id) ?? [])).sort()
  }

  idsNow(): string[] {
    return [...this.rowOf.keys()]
  }

  factsAt(row: number): Facts {
    const facts = this.facts[row]
    if (!facts) throw new RangeError(`There is no response in row ${row}.`)
    return facts
  }

  columnOf(key: string): Column | undefined {
    return this.columns.find(column => column.measure.key === key)
  }
}
