import {
  addOption,
  draftQuestion,
  isAnswerOf,
  settle,
  type Drafted,
  type DraftedQuestion,
} from './outlineQuestion'
import { fromTable } from './outlineTable'

const MOST_LINES = 3_000
const HEADING = /^(?:#+\s*|(?:section|part|page|chapter)\s+(?:\d+|[ivx]+|[a-z])\b\s*[:.)–-]?\s*)(.*)$/i
const NUMBERED = /^(?:q(?:uestion)?\s*)?(?:\d+(?:\.\d+)+[.)]?\s+|\d+(?:\.\d+)*\s*[.):–-]\s*)(.+)$/i
const BOX = /[☐☑▢□○●◯⬜]|\[\s?[x✓]?\s?\]|\(\s?\)/i
const BULLET = /^(?:[-*•◦‣▪▢□☐○●◯⬜]|\[\s?[x✓]?\s?\]|\(\s?\)|o(?=\s)|[a-z]\)|\([a-z]\))\s*(.+)$/i

/** Reads a text outline (questions with options under them) or rows of a spreadsheet. Nothing is refused: every line becomes something. */
export function readOutline(text: string): Drafted[] {
  const lines = text.replaceAll('\r', '').split('\n').slice(0, MOST_LINES)
  const filled = lines.filter(l => l.trim() !== '')
  const isTable =
    filled.length > 0 && filled.filter(l => l.includes('\t')).length >= Math.max(1, filled.length * 0.6)
  return isTable ? fromTable(filled.map(l => l.split('\t').map(c => c.trim()))) : fromLines(filled)
}

/** A line of an outline, taken apart. */
interface OutlineLine {
  words: string
  indent: number
  heading: string | null
  numbered: string | undefined
  bullet: string | undefined
  /** The choices that stand in the line itself, and what stands before them. */
  inline: { label: string; options: string[] } | null
}

function readLine(line: string): OutlineLine {
  const words = line.trim()
  const numbered = NUMBERED.exec(words)?.[1]
  return {
    words,
    indent: line.length - line.trimStart().length,
    heading: numbered === undefined ? headingIn(words) : null,
    numbered,
    bullet: BULLET.exec(words)?.[1],
    inline: inlineOptions(numbered ?? words),
  }
}

const STARRED = /\s*\*+\s*$/
/** Choices behind boxes or between strokes in one line: “Insured? ☐ Yes ☐ No”, “Hull: wood / steel / GRP”; null where there are none. */
function inlineOptions(line: string): OutlineLine['inline'] {
  const words = line.replace(STARRED, '')
  const star = words === line ? '' : ' *'
  const [before = '', ...boxed] = words.split(BOX).map(p => p.trim())
  if (boxed.length > 1 && boxed.every(p => p !== ''))
    return { label: before && before + star, options: boxed }
  const [, label = '', rest = ''] = /^(.*?[:?])?\s*([^:?]+)$/.exec(words) ?? []
  const parts = rest.split(/\s+\/\s+/).map(p => p.trim())
  const isList = parts.length > 2 || (parts.length === 2 && label !== '')
  return isList && parts.every(p => p !== '' && p.length < 60)
    ? { label: label && label + star, options: parts }
    : null
}

/** The title that a line gives to a section; null when it is no heading. */
function headingIn(words: string): string | null {
  const marked = HEADING.exec(words)?.[1]
  if (marked === undefined && !isShouted(words)) return null
  const title = marked || words
  if (title === '') return null
  return isShouted(title) ? sentenceCase(title) : title
}

const isShouted = (words: string) =>
  /\p{Lu}{3}/u.test(words) &&
  words === words.toUpperCase() &&
  !/[?_:]/.test(words) &&
  words.length < 80 &&
  !BULLET.test(words)
const sentenceCase = (words: string) => words.charAt(0) + words.slice(1).toLowerCase()

/** A plain sentence asks nothing: it is to be read. */
const isSentence = (words: string) =>
  /^\p{Lu}[^?]*[.!]$/u.test(words) && words.split(/\s+/).length >= 5 && !/_{2,}|…|\.{3,}/.test(words)

/** “If yes, which?”: asked behind an answer to the question above. */
const BEHIND =
  /^(?:\(\s*)?if\s+(?:the answer is\s+)?[“"']?(yes|no|not|other|[\p{L}\p{N}][\p{L}\p{N} -]{0,40}?)[”"']?\s*[,:–-]\s*(.+?)\)?$/iu

/** Reads the lines one after the other. */
class Reading {
  readonly drafted: Drafted[] = []
  private open: DraftedQuestion | null = null
  /** Of questions asked behind an answer, the words as they stood. */
  private readonly whole = new Map<DraftedQuestion, string>()
  private depth = 0

  /** Whether the choices of the open question are marked: a plain line below them is none then. */
  private isMarked = false
  private hasNumbers = false

  /** @param allBullets nothing but bullets: they are the questions */
  constructor(
    private readonly lines: readonly OutlineLine[],
    private readonly allBullets: boolean,
  ) {
    this.lookAhead(0)
  }

  /** Whether the questions of a section are numbered. */
  private lookAhead(from: number) {
    const end = this.lines.findIndex((l, i) => i >= from && l.heading !== null)
    const own = this.lines.slice(from, end < 0 ? undefined : end)
    this.hasNumbers = own.some(l => l.numbered !== undefined)
  }

  take(line: OutlineLine, at: number) {
    const { words, heading, numbered, bullet, inline } = line
    if (heading !== null) return this.head(heading, at)
    const options = this.optionsIn(line)
    if (this.open && options) {
      for (const option of options) addOption(this.open, option)
      this.isMarked ||= this.isMarkedLine(line)
      return
    }
    const own = numbered ?? bullet ?? words
    if (own === words && !inline && isSentence(words)) this.drafted.push({ kind: 'note', text: words })
    else {
      this.depth = line.indent
      this.ask(inline?.label || own, inline?.options ?? [], at)
    }
  }

  private head(title: string, at: number) {
    this.drafted.push({ kind: 'section', title })
    this.open = null
    this.lookAhead(at + 1)
  }
  private isMarkedLine = ({ bullet, inline, indent }: OutlineLine): boolean =>
    bullet !== undefined || inline !== null || indent > this.depth

  /** The choices that a line adds to the question above it; null when it is no such line. */
  private optionsIn(line: OutlineLine): readonly string[] | null {
    if (!this.open || line.numbered !== undefined) return null
    if (line.inline?.label === '') return line.inline.options
    if (!this.isOption(line)) return null
    return line.inline ? null : [line.bullet ?? line.words]
  }

  private ask(words: string, options: readonly string[], at: number) {
    const behind = BEHIND.exec(words)
    const before = this.open
    const made = draftQuestion(behind?.[2] ? upperFirst(behind[2]) : words, at)
    for (const option of options) addOption(made, option)
    if (behind?.[1] && before) {
      // A follow-up of a follow-up stands behind the same answer’s question.
      const parent = before.behind ? (this.questionAt(before.behind.line) ?? before) : before
      made.behind = { line: parent.line, answer: behind[1] }
      this.whole.set(made, words)
    }
    this.open = made
    this.isMarked = options.length > 0
    this.drafted.push(made)
  }
  /** Once types are known: “If possible, …” is behind no answer, and keeps its words. */
  settle() {
    for (const d of this.drafted) if (d.kind === 'question') settle(d)
    for (const [asked, words] of this.whole) {
      const parent = asked.behind ? this.questionAt(asked.behind.line) : undefined
      if (parent && asked.behind && isAnswerOf(parent, asked.behind.answer)) continue
      asked.behind = null
      asked.label = draftQuestion(words).label
    }
  }
  private questionAt = (line: number): DraftedQuestion | undefined =>
    this.drafted.find((d): d is DraftedQuestion => d.kind === 'question' && d.line === line)

  /** Whether a line is a choice of the question above it: marked or indented, or not numbered where questions are. */
  private isOption({ words, indent, numbered, bullet }: OutlineLine): boolean {
    if (numbered !== undefined || BEHIND.test(bullet ?? words)) return false
    // A line to be filled in is a question of its own.
    if (/_{3,}|…{2,}|\.{4,}/.test(words) && !/^other\b/i.test(bullet ?? words)) return false
    if (indent > this.depth || (bullet !== undefined && !this.allBullets)) return true
    if (!this.hasNumbers || this.isMarked) return false
    return !words.endsWith('?') && !isSentence(words) && !/_{3,}|:\s*$/.test(words)
  }
}

const upperFirst = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

function fromLines(lines: string[]): Drafted[] {
  const read = lines.map(readLine)
  const asked = read.filter(l => l.heading === null)
  const reading = new Reading(
    read,
    asked.every(l => l.bullet !== undefined),
  )
  for (const [at, line] of read.entries()) reading.take(line, at)
  reading.settle()
  return reading.drafted
}
