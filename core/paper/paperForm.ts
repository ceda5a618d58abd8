import { sentenceText, type Wording } from '../expressions/sentence'
import { FINISH } from '../form/finish'
import type { Form } from '../form/definition'
import type { Skip } from '../form/fields'
import { ruleSentence, wordingOf } from '../form/names'
import type { Question } from '../form/questions'
import { withoutQuotes } from '../form/quotes'
import { listPlaces, type GroupPlace, type Place, type PlaceOf } from '../form/walk'
import { accessViewOf, mayFill } from '../parties/access'
import { partyOf } from '../parties/turns'
import { blankOf, type Blank } from './blanks'
import { isAskedOnPaper, placeAfter } from './goesOn'

/** One thing on a paper form, to be answered or read. `when`: the condition under which it is, in words; `goOn`: where its answers lead, in words. */
export interface PaperLine {
  key: string
  number: string
  label: string
  help: string
  when: string
  isRequired: boolean
  requiredWhen: string
  /** Where an answer is written; null for a heading or a text. */
  blank: Blank | null
  kind: 'question' | 'note' | 'group'
  /** How deep it stands in groups. */
  depth: number
  goOn: string[]
}

/** A part of a paper form. `by`: the parties that fill it, where there are several. */
export interface PaperSection {
  number: string
  title: string
  when: string
  by: string[]
  lines: PaperLine[]
  /** Where it leads at its end, in words. */
  goOn: string[]
}

/** So many entries of what repeats stand on paper at most. */
const MOST_ENTRIES = 3

/** A form as it is printed to be filled with a pen: its conditions stand there in words, and what an answer passes over as “go to 12”. */
export function layOutPaper(form: Form): PaperSection[] {
  const paper = new Paper(form)
  return form.sections.map((_, index) => paper.section(index))
}

class Paper {
  private readonly places: readonly Place[]
  private readonly words: Wording

  constructor(private readonly form: Form) {
    this.places = listPlaces(form)
    const wording = wordingOf(form, this.places)
    const numbers = new Map(this.places.map(p => [p.code, p.number]))
    // On paper a question is found by its number.
    const question = (code: string) => {
      const label = wording.question(code)
      const number = numbers.get(code)
      return label && number ? `“${withoutQuotes(label)}” (${number})` : label
    }
    this.words = { ...wording, question }
  }

  section(index: number): PaperSection {
    const inside = this.places.filter(p => p.section === index)
    const own = inside.find(p => p.kind === 'section')
    const outermost = inside.filter(p => p.kind !== 'section' && p.groups.length === 0)
    return {
      number: own?.number ?? '',
      title: withoutQuotes(own?.node.title ?? ''),
      when: this.say(own?.node.shownWhen),
      by: own ? this.fillersOf(own) : [],
      lines: outermost.flatMap(p => this.linesOf(p, '')),
      goOn: this.routesOf(index),
    }
  }

  private fillersOf(section: Place): string[] {
    const turns = (this.form.turns ?? []).filter(turn =>
      mayFill(accessViewOf(this.form, this.places, turn), section),
    )
    return [...new Set(turns.map(turn => partyOf(this.form, turn)?.name ?? turn.code))]
  }

  private linesOf(place: Place, entry: string): PaperLine[] {
    if (place.kind === 'section') return []
    if (place.kind === 'group') return this.groupLines(place, entry)
    if (place.kind === 'note') return [this.line(place, entry, place.node.text)]
    const { node } = place
    if (node.type === 'hidden' || (node.type === 'value' && node.show === false)) return []
    return [{ ...this.line(place, entry, node.label), ...this.asked(place, node) }]
  }

  private line(place: Exclude<Place, PlaceOf<'section'>>, entry: string, label: string): PaperLine {
    return {
      key: `${place.address}${entry}`,
      number: place.number,
      label: place.kind === 'note' ? withoutQuotes(label) : withoutQuotes(label) || place.code,
      help: '',
      when: this.say(place.node.shownWhen),
      isRequired: false,
      requiredWhen: '',
      blank: null,
      kind: place.kind,
      depth: place.groups.length,
      goOn: [],
    }
  }

  private asked(place: PlaceOf<'question'>, node: Question): Partial<PaperLine> {
    const required = 'required' in node ? node.required : undefined
    const help = 'help' in node ? node.help : undefined
    return {
      help: withoutQuotes(help ?? ''),
      isRequired: required === true,
      requiredWhen: typeof required === 'string' ? this.say(required) : '',
      blank: blankOf(node, this.form, answer => this.goOnAfter(place, answer)),
      goOn: 'skips' in node ? (node.skips ?? []).map(skip => this.skipWords(skip)) : [],
    }
  }

  /** A group with what stands in it; of one that repeats some entries. */
  private groupLines(group: GroupPlace, entry: string): PaperLine[] {
    const inside = this.places.filter(p => p.groups.at(-1)?.address === group.address)
    const { repeat } = group.node
    const head = this.line(group, entry, group.node.title)
    if (!repeat) return [head, ...inside.flatMap(p => this.linesOf(p, entry))]
    const most = Math.min(repeat.max ?? MOST_ENTRIES, MOST_ENTRIES)
    const count = Math.min(most, Math.max(2, repeat.min ?? 0))
    const entries = Array.from({ length: count }, (_, i) => i + 1)
    return entries.flatMap(n => [
      {
        ...head,
        key: `${head.key} ${n}`,
        label: `${head.label}, no. ${n}`,
        help: n === 1 ? manyWords(repeat, count) : '',
      },
      ...inside.flatMap(p => this.linesOf(p, `${entry} ${n}`)),
    ])
  }

  private say(rule: string | undefined): string {
    if (rule === undefined) return ''
    const sentence = ruleSentence(rule, this.words)
    return sentence ? sentenceText(sentence) : rule
  }

  private goOnAfter(place: PlaceOf<'question'>, answer: boolean | string): string {
    const following = this.places.slice(place.order + 1).filter(p => place.entryOf === p.entryOf)
    const next = placeAfter(place, answer, following, this.places)
    if (next === null) return ''
    if (next === 'end' && place.entryOf) return 'leave out the rest of this entry'
    return next === 'end' ? 'go to the end' : `go to ${next.number}`
  }

  private skipWords({ when, to }: Skip): string {
    const target = this.places.find(p => p.address === to)
    const asked = target && (target.number ? target : this.places.slice(target.order).find(isAskedOnPaper))
    const where = to === FINISH || !asked ? 'go to the end' : `go to ${asked.number}`
    return `If ${this.say(when)}, ${where}.`
  }

  private routesOf(index: number): string[] {
    const routes = this.form.sections[index]?.routes ?? []
    return routes.map(({ when, to }) => {
      const target = this.form.sections.findIndex(s => s.code === to)
      const where = target < 0 ? 'go to the end' : `go to part ${target + 1}`
      return when === undefined ? `Then ${where}.` : `If ${this.say(when)}, ${where}.`
    })
  }
}

function manyWords({ min = 0, max }: NonNullable<GroupPlace['node']['repeat']>, count: number): string {
  const most = max === undefined ? 'as many as there are' : `up to ${max}`
  const least = min > 0 ? `, at least ${min}` : ''
  const isMore = max === undefined || max > count
  return `Fill one for each: ${most}${least}.${isMore ? ' Take a further sheet for more.' : ''}`
}
