import { LIMITS } from './limits'
import type { QuestionType } from './questions'
import { typeNamed } from './typeHints'

/** What a pasted text would become: sections and questions, before anything is inserted, to be looked at and corrected. */
export type Drafted =
  { kind: 'section'; title: string } | DraftedQuestion | { kind: 'note'; text: string; line?: number }

export interface DraftedQuestion {
  kind: 'question'
  /** By which others of the same text name it. */
  line: number
  label: string
  type: QuestionType
  options: string[]
  required: boolean
  help: string
  code: string
  writeIn: boolean
  /** Between which numbers an answer lies. */
  range: { min: number; max: number } | null
  /** The answer to another question that it is asked behind. */
  behind: { line: number; answer: string } | null
}

/** What a label sounds like, the first that fits. */
const SOUNDS: readonly (readonly [RegExp, QuestionType])[] = [
  [/\be-?mail\b/i, 'email'],
  [/\b(?:phone|telephone|mobile|tel|cell)\b/i, 'phone'],
  [/\b(?:website|web address|url)\b/i, 'url'],
  [/\b(?:signature|signed)\b/i, 'signature'],
  [/\bdate and time\b/i, 'dateTime'],
  [/\b(?:date|birthday|day of|born on)\b|^when\b|^\w+ on$/i, 'date'],
  [/\b(?:what time|time of)\b/i, 'time'],
  [/\bhow (?:many|old)\b|\bnumber of\b|^age\b|\bno\. of\b/i, 'integer'],
  [/\b(?:price|cost|fee|amount|how much does)\b/i, 'money'],
  [/\b(?:describe|explain|comments?|remarks?|details|anything else)\b/i, 'longText'],
  [/\b(?:upload|attach|photo(?:graph)?s?)\b/i, 'file'],
  [/^(?:do|does|did|is|are|was|were|has|have|had|can|could|will|would|should|shall|may)\b/i, 'yesNo'],
  [/^(?!.*\b(?:what|which|how|who|whom|whose|when|where|why)\b).*\?$/i, 'yesNo'],
]
const ALL_THAT_APPLY = /\b(?:all that apply|several|more than one|any number)\b/i
const RANKED = /^rank\b|\b(?:in order of|order of (?:preference|importance))\b/i
const OTHER = /^other\b(?:.*(?:say|specify|which|what)|\s*[:_…(].*|)$/i

const HINT = /\s*[[(]\s*([a-z][a-z /-]{1,24})\s*[\])]\s*$/i
const STAR = /\s*\*+\s*$/
const BLANKS = /[\s:]*(?:(?:_{2,}|\.{3,}|…+)[\s/.-]*)+$/
const RANGE = /\s*[[(]\s*(\d{1,6})\s*(?:-|–|to|\.\.)\s*(\d{1,6})\s*[\])]\s*$/i
const SCALE = /\bscale (?:of|from) (\d{1,2})\s*(?:-|–|to)\s*(\d{1,2})\b/i
/** A range this short is a scale, a longer one a number. */
const MOST_ON_SCALE = 10

/** A question with a label, its hints read: “(required)”, a star, “(tick all that apply)”, “[0-100]”. */
export function draftQuestion(words: string, line = -1): DraftedQuestion {
  const bare = words.replace(STAR, '').replace(BLANKS, '').trim()
  let label = bare.replace(STAR, '')
  const hint = HINT.exec(label)?.[1]?.toLowerCase()
  const hinted = hint === undefined ? undefined : typeNamed(hint)
  // The star may stand before the hint or behind it.
  const isRequired =
    STAR.test(words) || STAR.test(bare) || STAR.test(label.replace(HINT, '')) || hint === 'required'
  if (hinted || hint === 'required' || hint === 'optional') label = label.replace(HINT, '')
  const range = rangeIn(label)
  label = label
    .replace(RANGE, '')
    .replace(STAR, '')
    .replace(/\s*:\s*$/, '')
    .trim()
    .slice(0, LIMITS.label)
  return {
    kind: 'question',
    line,
    label,
    type: hinted ?? (range ? typeOfRange(range, label) : 'text'),
    options: [],
    required: isRequired,
    help: '',
    code: '',
    writeIn: false,
    range,
    behind: null,
  }
}

type Range = { min: number; max: number }
function rangeIn(label: string): Range | null {
  const [, from, to] = SCALE.exec(label) ?? RANGE.exec(label) ?? []
  const [min, max] = [Number(from), Number(to)]
  return min < max ? { min, max } : null
}
function typeOfRange({ min, max }: Range, label: string): QuestionType {
  const isScale = SCALE.test(label) || /\b(?:rate|rating|score|satisfied|likely)\b/i.test(label)
  return isScale && min >= 0 && max <= MOST_ON_SCALE ? 'scale' : 'integer'
}

/** Adds a choice; “Other …” asks for one’s own words. */
export function addOption(to: DraftedQuestion, words: string) {
  const label = words
    .replace(/[\s:]*[_…]{2,}\s*$/, '')
    .trim()
    .slice(0, LIMITS.label)
  if ((OTHER.test(words) || OTHER.test(label)) && to.options.length > 0) to.writeIn = true
  else if (label !== '' && to.options.length < LIMITS.options) to.options.push(label)
}

/** The type that the options and the words speak for, unless a hint has said it. */
export function settle(q: DraftedQuestion) {
  if (q.options.length === 0) {
    if (q.type === 'text') q.type = SOUNDS.find(([sound]) => sound.test(q.label))?.[1] ?? 'text'
    return
  }
  if (isYesNo(q)) {
    q.type = 'yesNo'
    q.options = []
    return
  }
  if (RANKED.test(q.label)) q.type = 'ranking'
  if (q.type !== 'choices' && q.type !== 'ranking')
    q.type = ALL_THAT_APPLY.test(q.label) ? 'choices' : 'choice'
}

/** Whether a question can be answered so: a rule behind another answer could never be made. */
export function isAnswerOf({ type, options }: DraftedQuestion, answer: string): boolean {
  const said = answer.toLowerCase()
  if (type === 'yesNo') return ['yes', 'no', 'not'].includes(said)
  const hasChoices = type === 'choice' || type === 'choices'
  return hasChoices && options.some(o => o.toLowerCase() === said)
}

/** Whether the choices are a plain yes and a plain no. */
function isYesNo({ options, writeIn }: DraftedQuestion): boolean {
  const [yes = '', no = '', ...more] = options
  const isPlain = /^y(?:es)?\b/i.test(yes) && yes.length < 6 && /^no?\b/i.test(no) && no.length < 6
  return isPlain && more.length === 0 && !writeIn
}
