import { isoFromDay, dayNumber } from '#core/expressions/dates'
import { nextSpan } from '#core/summary/days'
import { binCondition, daysCondition } from '#core/summary/conditions'
import type { MeasureSummary, Summary } from '#shared/api/summaries'

/** A figure as it is drawn, and as it stands in a table: its values along one side, in one series or several. */
export interface Figure {
  key: string
  title: string
  section: string
  /** How many answered it, and why others did not. */
  about: string
  /** What is told of its numbers in a sentence. */
  told: string
  labels: string[]
  series: { name: string; values: number[] }[]
  /** Whether the values are shares, in percent. */
  isShare: boolean
  shape: 'bars' | 'columns' | 'stacked' | 'words' | 'none'
  /** Of each label the condition that is true of those behind it; null where there is none. */
  asked: (string | null)[]
}

const percent = (part: number, whole: number) => (whole === 0 ? 0 : Math.round((part / whole) * 1_000) / 10)

/** The figures of a summary: one for each question, the rows of a grid in one. */
export function figuresOf({ groups }: Summary): Figure[] {
  const [first] = groups
  if (!first) return []
  return first.measures.flatMap((found, i) => {
    const { code, row } = found.measure
    const all = groups.map(group => ({ name: group.label, found: group.measures[i] ?? found }))
    if (row === null) return [figureOf(all)]
    const isFirstRow = first.measures[i - 1]?.measure.code !== code
    return isFirstRow ? [gridFigure(first.measures.filter(m => m.measure.code === code))] : []
  })
}

interface Group {
  name: string
  found: MeasureSummary
}

const about = (found: MeasureSummary): string =>
  found.measure.promise === null ? aboutQuestion(found) : aboutPromise(found)

/** A promise is asked of nobody: it holds in what is done, or does not. */
const aboutPromise = ({ answered, ahead }: MeasureSummary): string =>
  ahead > 0 ? `${answered} are done, ${ahead} not yet` : `${answered} are done`

const aboutQuestion = ({ asked, answered, blank, ahead, unasked }: MeasureSummary): string =>
  [
    `${answered} of ${asked} asked answered`,
    blank > 0 ? `${blank} left it blank` : '',
    ahead > 0 ? `${ahead} not reached yet` : '',
    unasked > 0 ? `${unasked} not asked` : '',
  ]
    .filter(Boolean)
    .join(', ')

function figureOf(groups: readonly Group[]): Figure {
  const [first] = groups
  if (!first) throw new Error('A figure is made of at least one group.')
  const { measure } = first.found
  const base = {
    key: measure.key,
    title: measure.label,
    section: measure.section,
    about: groups.length === 1 ? about(first.found) : '',
    told: groups.length === 1 ? tell(first.found) : '',
    isShare: false,
    asked: [],
    labels: [],
    series: [],
  }
  if (groups.length > 1) return { ...base, ...compared(groups) }
  return { ...base, ...alone(first.found) }
}

type Drawn = Pick<Figure, 'labels' | 'series' | 'shape'> &
  Partial<Pick<Figure, 'asked' | 'isShare' | 'about'>>

/** What responses say to one question, by itself. */
function alone({ measure, options, numbers, days, words, answered, blank }: MeasureSummary): Drawn {
  const one = (values: number[]) => [{ name: 'Responses', values }]
  if (measure.kind === 'choice')
    return {
      labels: options.map(o => o.label),
      series: one(options.map(o => o.count)),
      asked: options.map(o => o.asked),
      shape: 'bars',
    }
  if (numbers)
    return {
      labels: numbers.bins.map((b, i, all) => binLabel(b, numbers.areWhole && i < all.length - 1)),
      series: one(numbers.bins.map(b => b.count)),
      asked: numbers.bins.map((b, i, all) => binCondition(measure, b.from, b.to, i === all.length - 1)),
      shape: 'columns',
    }
  if (days)
    return {
      labels: days.spans.map(s => spanLabel(s.from, days.span)),
      series: one(days.spans.map(s => s.count)),
      asked: days.spans.map(s => spanAsked(measure.asked, s.from, days.span)),
      shape: 'columns',
    }
  if (words && words.length > 0)
    return { labels: words.map(w => w.word), series: one(words.map(w => w.count)), shape: 'words' }
  return { labels: ['given', 'left blank'], series: one([answered, blank]), shape: 'none' }
}

/** The same of several groups side by side: shares of those who answered, or what is in the middle of their numbers. */
function compared(groups: readonly Group[]): Drawn {
  const [first] = groups
  const measure = first?.found.measure
  const said = groups.map(g => `${g.name}: ${g.found.answered} of ${g.found.asked}`).join(', ')
  if (measure?.kind === 'choice') {
    const labels = first?.found.options.map(o => o.label) ?? []
    const series = groups.map(({ name, found }) => ({
      name,
      values: labels.map((_, i) => percent(found.options[i]?.count ?? 0, found.answered)),
    }))
    return { labels, series, shape: 'bars', isShare: true, about: said }
  }
  if (measure?.kind === 'number') {
    const figures = { Median: 'median', Mean: 'mean' } as const
    const series = Object.entries(figures).map(([name, figure]) => ({
      name,
      values: groups.map(({ found }) => rounded(found.numbers?.[figure] ?? 0)),
    }))
    return { labels: groups.map(g => g.name), series, shape: 'columns', about: said }
  }
  const values = groups.map(({ found }) => percent(found.answered, found.asked))
  return {
    labels: groups.map(g => g.name),
    series: [{ name: 'Answered, of those asked', values }],
    shape: 'columns',
    isShare: true,
    about: said,
  }
}

/** The rows of a grid in one figure: of each row the share of each step. */
function gridFigure(rows: readonly MeasureSummary[]): Figure {
  const [first] = rows
  if (!first) throw new Error('A grid has at least one row.')
  const title = first.measure.label.split(': ').slice(0, -1).join(': ')
  return {
    key: first.measure.code,
    title,
    section: first.measure.section,
    about: about(first),
    told: '',
    labels: rows.map(r => r.measure.label.slice(title.length + 2)),
    series: first.options.map((option, i) => ({
      name: option.label,
      values: rows.map(r => percent(r.options[i]?.count ?? 0, r.answered)),
    })),
    isShare: true,
    shape: 'stacked',
    asked: [],
  }
}

const rounded = (n: number) => Math.round(n * 100) / 100
/** A number as it stands in a sentence. */
const say = (n: number, unit = '') =>
  `${rounded(n).toLocaleString('en', { maximumFractionDigits: 2 }).replaceAll(',', '\u00a0')}${unit ? `\u00a0${unit}` : ''}`

function tell({ numbers, points, measure, options }: MeasureSummary): string {
  if (numbers) {
    const { median, q1, q3, mean, sum, min, max } = numbers
    const of = (n: number) => say(n, measure.unit)
    return `Median ${of(median)}; half lie between ${of(q1)} and ${of(q3)}. Mean ${of(mean)}, sum ${of(sum)}, from ${of(min)} to ${of(max)}.`
  }
  if (measure.isRanked) {
    const placed = options.flatMap(o => (o.place === null ? [] : [`${o.label} ${say(o.place)}`]))
    return placed.length > 0 ? `Mean place: ${placed.join(', ')}.` : ''
  }
  return points ? `Mean ${say(points.mean)}, median ${say(points.median)}.` : ''
}

/** What lies in a bin; of whole numbers up to the last one before the next bin. */
function binLabel({ from, to }: { from: number; to: number }, isWhole: boolean): string {
  const last = isWhole ? to - 1 : to
  return from === last || (to - from === 1 && Number.isInteger(from)) ? `${from}` : `${from}–${last}`
}

const SHOWN = { day: 10, week: 10, month: 7, year: 4 } as const
const spanLabel = (from: string, span: keyof typeof SHOWN) => from.slice(0, SHOWN[span])
function spanAsked(asked: string | null, from: string, span: keyof typeof SHOWN): string | null {
  const start = dayNumber(from)
  return asked === null || start === null
    ? null
    : daysCondition(asked, from, isoFromDay(nextSpan(start, span)))
}
