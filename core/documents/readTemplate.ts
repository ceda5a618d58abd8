import { findLooseBraces, findTags, type Tag } from '../form/tags'

/** A paragraph of a template: its text, in which part of the file it stands, and in which cells of which tables, the outermost first. */
export interface TemplateParagraph {
  part: TemplatePart
  text: string
  cells: readonly Cell[]
}
export interface Cell {
  table: number
  row: number
  cell: number
}
export type TemplatePart = 'body' | 'header' | 'footer' | 'notes'

/** A tag of a template with the paragraph in which it stands, its place there, and the words around it. */
export interface TemplateTag {
  tag: Tag
  paragraph: number
  from: number
  to: number
}

/** What is wrong with a template: where, and the words around it. */
export interface TemplateProblem {
  sentence: string
  part: TemplatePart
  before: string
  marked: string
  after: string
  /** The nearest right spelling of what is marked; null for none. */
  near: string | null
}

/** Two tags that belong together, by their places in the list of tags: the beginning and the end of a clause or loop, and the `else` between. */
export interface TagPair {
  from: number
  otherwise: number | null
  to: number
  /** What is printed or left out as a whole: words of one paragraph, whole paragraphs, or rows of a table. */
  around: 'words' | 'paragraphs' | 'rows'
}

export interface TemplateReading {
  tags: TemplateTag[]
  pairs: TagPair[]
  problems: TemplateProblem[]
}

const AROUND = 40

/** A problem with the words around it. */
export function problemIn(
  paragraph: TemplateParagraph,
  { from, to }: { from: number; to: number },
  sentence: string,
  near: string | null = null,
): TemplateProblem {
  const { text, part } = paragraph
  return {
    ...{ sentence, part, near },
    before: text.slice(Math.max(0, from - AROUND), from),
    marked: text.slice(from, to),
    after: text.slice(to, to + AROUND),
  }
}

/** Reads the tags of a template, and how they belong together: every problem of their writing and nesting at once. */
export function readTemplate(paragraphs: readonly TemplateParagraph[]): TemplateReading {
  const tags: TemplateTag[] = []
  const problems: TemplateProblem[] = []
  for (const [index, paragraph] of paragraphs.entries()) {
    for (const { tag, from, to } of findTags(paragraph.text)) {
      if (tag.is === 'faulty') problems.push(problemIn(paragraph, { from, to }, tag.sentence))
      else tags.push({ tag, paragraph: index, from, to })
    }
    const loose = findLooseBraces(paragraph.text)
    if (loose < 0) continue
    const isOpen = paragraph.text.startsWith('{{', loose)
    const sentence = isOpen
      ? 'A tag is begun here that does not end in the same paragraph: }} is missing.'
      : 'Braces are closed here that were not opened: {{ is missing.'
    problems.push(problemIn(paragraph, { from: loose, to: loose + 2 }, sentence))
  }
  const nesting = new Nesting(paragraphs, tags)
  return { tags, pairs: nesting.pairs, problems: [...problems, ...nesting.problems] }
}

/**
 * The same with tags as a form has them now, where they are of the same kinds in the same order: what was renamed since the file was brought in
 * is called as it is now. Null where the file has other tags.
 */
export function withTagsOf(reading: TemplateReading, tags: readonly Tag[]): TemplateReading | null {
  const alike =
    reading.tags.length === tags.length && reading.tags.every(({ tag }, i) => isAlike(tag, tags[i]))
  if (!alike) return null
  return { ...reading, tags: reading.tags.map((own, i) => ({ ...own, tag: tags[i] ?? own.tag })) }
}
const isAlike = (one: Tag, other: Tag | undefined) =>
  one.is === other?.is && (one.is !== 'end' || other.is !== 'end' || one.of === other.of)

const NAMES = { when: 'clause', each: 'loop' } as const

/** Finds which tags belong together. */
class Nesting {
  readonly pairs: TagPair[] = []
  readonly problems: TemplateProblem[] = []
  private open: { index: number; otherwise: number | null }[] = []

  constructor(
    private readonly paragraphs: readonly TemplateParagraph[],
    private readonly tags: readonly TemplateTag[],
  ) {
    tags.forEach((tag, index) => {
      this.leaveParts(tag)
      this.take(tag, index)
    })
    this.closeAll()
  }

  private take({ tag }: TemplateTag, index: number) {
    if (tag.is === 'when' || tag.is === 'each') this.open.push({ index, otherwise: null })
    else if (tag.is === 'else') this.takeElse(index)
    else if (tag.is === 'end') this.takeEnd(tag.of, index)
  }

  private takeElse(index: number) {
    const last = this.open.at(-1)
    if (last === undefined || this.tags[last.index]?.tag.is !== 'when')
      this.say(index, '{{else}} stands in no clause.')
    else if (last.otherwise !== null) this.say(index, 'The clause has a second {{else}}.')
    else last.otherwise = index
  }

  private takeEnd(of: 'when' | 'each', index: number) {
    const last = this.open.at(-1)
    const begun = last === undefined ? undefined : this.tags[last.index]?.tag
    if (last === undefined || (begun?.is !== 'when' && begun?.is !== 'each')) {
      this.say(index, `This {{/${of}}} ends a ${NAMES[of]} that was not begun.`)
      return
    }
    this.open.pop()
    if (begun.is !== of) {
      const sentence = `The ${NAMES[begun.is]} {{#${begun.is} ${begun.source}}} is ended by {{/${of}}}: {{/${begun.is}}} is meant.`
      this.say(index, sentence)
      return
    }
    this.pair(last, index)
  }

  /** What is begun in a header ends there. */
  private leaveParts({ paragraph }: TemplateTag) {
    const last = this.open.at(-1)
    const before = last === undefined ? undefined : this.partOf(last.index)
    if (before !== undefined && before !== this.paragraphs[paragraph]?.part) this.closeAll()
  }

  private closeAll() {
    for (const { index } of this.open) {
      const tag = this.tags[index]?.tag
      if (tag?.is === 'when' || tag?.is === 'each')
        this.say(index, `This ${NAMES[tag.is]} does not end: {{/${tag.is}}} is missing.`)
    }
    this.open = []
  }

  private pair({ index, otherwise }: { index: number; otherwise: number | null }, end: number) {
    const around = this.aroundOf(index, end)
    const middle = otherwise === null ? around : this.aroundOf(index, otherwise)
    if (around === null || middle === null)
      this.say(index, 'This begins in one table, or cell, and ends in another: it would tear the table.')
    else if (otherwise !== null && around === 'rows')
      this.say(otherwise, 'An {{else}} stands inside of a cell; here it would tear the row of the table.')
    else if (around === 'rows' && this.sharesRow(index))
      this.say(
        index,
        'Another clause or loop ends in this row already: the row can belong to one of them only.',
      )
    else this.pairs.push({ from: index, otherwise, to: end, around })
  }

  /** What two tags stand around; null where they can't belong together. */
  private aroundOf(from: number, to: number): TagPair['around'] | null {
    const [one, other] = [this.tags[from], this.tags[to]]
    if (!one || !other) return null
    if (one.paragraph === other.paragraph) return 'words'
    const [a, b] = [
      this.paragraphs[one.paragraph]?.cells ?? [],
      this.paragraphs[other.paragraph]?.cells ?? [],
    ]
    if (a.length !== b.length) return null
    const differ = a.findIndex((cell, i) => !sameCell(cell, b[i]))
    if (differ < 0) return 'paragraphs'
    const isLast = differ === a.length - 1
    return isLast && a[differ]?.table === b[differ]?.table ? 'rows' : null
  }

  /** Whether what begins at a tag begins in a row in which something before it ends. */
  private sharesRow(index: number): boolean {
    const own = this.rowOf(index)
    return this.pairs.some(p => p.around === 'rows' && p.to < index && this.rowOf(p.to) === own)
  }

  private rowOf(index: number): string {
    const cells = this.paragraphs[this.tags[index]?.paragraph ?? -1]?.cells ?? []
    return cells.map(({ table, row }) => `${table}/${row}`).join(' ')
  }

  private partOf = (index: number) => this.paragraphs[this.tags[index]?.paragraph ?? -1]?.part

  private say(index: number, sentence: string) {
    const tag = this.tags[index]
    const paragraph = tag && this.paragraphs[tag.paragraph]
    if (paragraph) this.problems.push(problemIn(paragraph, tag, sentence))
  }
}

const sameCell = (one: Cell, other: Cell | undefined) =>
  one.table === other?.table && one.row === other.row && one.cell === other.cell
