import type { QuestionOf, ChoiceType } from '../form/questions'
import { compile } from '../expressions/compile'
import { print } from '../expressions/print'
import { membersIn, namesIn, type Expr } from '../expressions/tree'
import { type Value, type ValueType, BOOLEAN } from '../expressions/types'
import type { Answers } from '../form/answers'
import { namesOfSkips } from '../fill/steps'
import { isTaken } from '../fill/wayOut'
import { answersInPlay, offeredNow, type Filled, type Frame } from '../fill/fill'
import { boundsOf } from '../form/bounds'
import { ownWords } from '../form/ownWords'
import type { Form, Item, Section } from '../form/definition'
import { LIMITS } from '../form/limits'
import type { Access, Turn } from '../form/turns'
import { standpointInside, type Standpoint } from '../form/scope'
import { rewriteQuotes } from '../form/quotes'
import type { GroupPlace, Place } from '../form/walk'
import { maySee, accessViewOf, type AccessView } from './access'
import { decidingCodes } from './decidingCodes'
import { EntryOutcomes } from './entryOutcomes'
import { literalOf } from './literal'
import { ASKING, RULES, TEXTS, without } from './nodeKeys'
import { SeenSkips } from './seenSkips'
import { columnsNamedIn, travelling } from './travelling'

/** What is sent to a party's browser for its turn. */
export interface RedactedForm {
  /** The form with nothing in it that the party never sees: rules over hidden answers are replaced by their outcome. */
  form: Form
  /** The answers that the party sees. */
  answers: Answers
  /** What it may do with each question and repeating group, by code. */
  access: Record<string, Exclude<Access, 'never'>>
  /** Answers of this turn on which an outcome over hidden answers depends: when one changes, the form is to be cut anew. */
  refetchOn: string[]
}

/**
 * Cuts a response to what a party sees in its turn. Hidden answers can't change during the turn, so a rule over them alone has one outcome; a
 * rule that also names answers of this turn is decided here for the answers as they are, and `refetchOn` names what it waits for.
 * @param turn the turn; null for the one respondent of a form without turns
 */
export function redactForParty(filled: Filled, turn: Turn | null, answers: Answers): RedactedForm {
  return new Redactor(filled, turn, answers).redact()
}

class Redactor {
  private readonly view: AccessView
  private readonly hidden: ReadonlySet<string>
  private readonly skips: SeenSkips
  private readonly outcomes: EntryOutcomes
  private readonly waitsFor = new Set<string>()
  private readonly extraLists: NonNullable<Form['lists']> = []
  private next = 0

  constructor(
    private readonly filled: Filled,
    turn: Turn | null,
    private readonly given: Answers,
  ) {
    const { form, places } = filled.plan
    this.view = accessViewOf(form, places, turn)
    this.skips = new SeenSkips(filled.plan, this.view)
    this.hidden = new Set(places.filter(p => p.kind !== 'section' && !maySee(this.view, p)).map(p => p.code))
    this.outcomes = new EntryOutcomes(filled, this.hidden)
  }

  redact(): RedactedForm {
    const { form, places } = this.filled.plan
    const routed = this.leadsThroughHidden()
    if (routed) this.waitForTheWay()
    const sections = form.sections.flatMap((section, i) => {
      const place = places[this.next++]
      if (!place) return []
      const items = this.items(section.items)
      return this.seesSection(i) ? [this.section(section, place, items, i, routed)] : []
    })
    const { lists, closings, ...rest } = withoutInner(form)
    const used = new Set(sections.flatMap(s => listsIn(s.items)))
    const end: Standpoint = { section: Math.max(0, form.sections.length - 1), groups: [], entryOf: null }
    const sentClosings = closings?.map(c => this.rewritten(c, end, BOOLEAN))
    const columns = columnsNamedIn([sections, sentClosings, rest.title])
    const kept = [...(lists ?? []).filter(l => used.has(l.code)), ...this.extraLists].map(l =>
      travelling(l, columns, () => this.mentioned(sections)),
    )
    const redacted: Form = {
      ...rest,
      title: this.text(rest.title, end),
      sections,
      ...(kept.length > 0 ? { lists: kept } : {}),
      ...(sentClosings ? { closings: sentClosings } : {}),
    }
    return { form: redacted, answers: this.answers(), access: this.access(), refetchOn: this.refetchOn() }
  }

  /** Routes and skips through what is hidden can't be followed in the browser: which sections are reached is told instead. */
  private leadsThroughHidden(): boolean {
    const { sections } = this.filled.plan.form
    const isRouted = (code: string) => sections.some(other => other.routes?.some(r => r.to === code))
    return (
      sections.some((s, i) => !this.seesSection(i) && ((s.routes?.length ?? 0) > 0 || isRouted(s.code))) ||
      this.filled.plan.skips.some(skip => skip.target > skip.from.section && !this.skips.isSeen(skip))
    )
  }

  private waitForTheWay() {
    const { form, skips } = this.filled.plan
    for (const s of form.sections)
      for (const text of [s.shownWhen, ...(s.routes ?? []).map(r => r.when)])
        if (text !== undefined) this.wait(text)
    for (const name of namesOfSkips(skips)) this.wait(name)
  }

  private words: Set<string> | null = null
  /** Every text in the answers and in the rules that are sent: codes among them have to be known in the browser. */
  private mentioned(sections: readonly Section[]): ReadonlySet<string> {
    if (this.words) return this.words
    const words = (this.words = new Set<string>())
    const visit = (value: unknown, inRule: boolean) => {
      if (typeof value === 'string') {
        words.add(value)
        if (inRule) for (const [, text = ''] of value.matchAll(/"((?:[^"\\]|\\.)*)"/g)) words.add(text)
      } else if (typeof value === 'object' && value !== null)
        Object.values(value).forEach(v => visit(v, inRule))
    }
    visit(this.answers(), false)
    visit(sections, true)
    return words
  }

  private seesSection = (index: number) => {
    const place = this.filled.plan.sections[index]?.place
    return place !== undefined && maySee(this.view, place)
  }

  private section(section: Section, place: Place, items: Item[], index: number, routed: boolean): Section {
    const { items: _, routes, ...rest } = section
    const asks = this.view.at[place.order] === 'fills'
    const bare = asks ? rest : without(rest, ASKING)
    const done = { ...this.rewritten(bare, place, BOOLEAN), items }
    if (routed)
      return this.filled.path.includes(index)
        ? without({ ...done }, new Set(['shownWhen']))
        : { ...done, shownWhen: 'false' }
    return routes ? { ...done, routes: routes.map(r => this.rewritten(r, place, BOOLEAN)) } : done
  }

  private items(items: readonly Item[]): Item[] {
    return items.flatMap((item): Item[] => {
      const place = this.filled.plan.places[this.next++]
      if (!place) return []
      const inner = item.kind === 'group' ? this.items(item.items) : null
      if (!maySee(this.view, place)) return []
      const bare = this.view.at[place.order] === 'fills' ? item : without(item, ASKING)
      const offering = this.offering(this.bounded(this.skips.withSeen(bare, place), place), place)
      // Standing under a choice that is not seen is a matter of layout that tells its code.
      const rest = without(
        offering,
        new Set([
          'officeOnly',
          'privateTo',
          'table',
          ...('under' in offering && offering.under && this.hidden.has(offering.under.question)
            ? ['under']
            : []),
        ]),
      )
      const done = this.skipped(this.rewritten(rest, place, this.filled.plan.names.typeOf(place.code)), place)
      // The shape is that of the item: keys were left out that may be, texts replaced by texts.
      return [...this.outcomes.takeItems(), (inner ? { ...done, items: inner } : done) as Item]
    })
  }

  /** A limit over hidden answers is told by its outcome, as a check: the limit itself would tell them. */
  private bounded(item: Item, place: Place): Item {
    if (item.kind !== 'question') return item
    const bounds = boundsOf(item).filter(b => this.namesHidden(b.rule, place, null))
    if (bounds.length === 0) return item
    const own = ownWords(item, this.filled.plan.form.messages)
    const checks = 'validWhen' in item ? (item.validWhen ?? []) : []
    const outcomes = bounds.map(({ rule, kind }) => ({ rule, message: own[kind] ?? '' }))
    // The shape is that of the item: keys were left out that may be.
    return { ...without(item, new Set(bounds.map(b => b.key))), validWhen: [...checks, ...outcomes] } as Item
  }

  /** What a skip passes over that the party can't follow is told to be out of play. */
  private skipped<T extends object>(item: T, place: Place): T {
    const unseen = this.skips.unseenOver(place)
    if (unseen.length === 0) return item
    for (const name of namesOfSkips(unseen)) this.wait(name)
    const { entryOf, order } = place
    if (entryOf && unseen.some(skip => skip.from.entryOf !== null))
      return { ...item, shownWhen: this.outcomeInEntry(entryOf, BOOLEAN, e => e.inPlay[order] === true) }
    return unseen.some(skip => isTaken(skip, this.filled)) ? { ...item, shownWhen: 'false' } : item
  }

  /** A choice narrowed by hidden answers is told which rows it offers now; where those are too many for a rule, it gets a list with just them. */
  private offering(item: Item, place: Place): Item {
    if (item.kind !== 'question' || (item.type !== 'choice' && item.type !== 'choices')) return item
    if (item.narrowedBy === undefined || !this.namesHidden(item.narrowedBy, place, item.list ?? ''))
      return item
    // In entries that are read, what was chosen was on offer.
    if (place.entryOf && this.view.at[place.order] === 'reads')
      return without(item, new Set(['narrowedBy'])) as Item
    this.wait(item.narrowedBy)
    const question = this.filled.plan.byCode.get(item.code)
    const offered = question ? [...(offeredNow(this.filled, question) ?? [])] : []
    const narrowedBy = isAmong(offered)
    return narrowedBy.length < LIMITS.expression
      ? { ...item, narrowedBy }
      : this.withOwnList(item, new Set(offered))
  }

  private namesHidden(rule: string, place: Place, list: string | null): boolean {
    const { expr } = this.filled.plan.names.read(rule, place, BOOLEAN, list)
    return expr !== null && this.asksForHidden(expr)
  }

  /** Also what stands in entries, by the group that they are of. */
  private asksForHidden = (expr: Expr): boolean =>
    namesIn(expr).some(n => this.hidden.has(n)) || membersIn(expr).some(n => this.hidden.has(n))

  /** A choice with a list of just the rows that it offers now. */
  private withOwnList(item: QuestionOf<ChoiceType>, offered: ReadonlySet<string>): Item {
    const list = this.filled.plan.form.lists?.find(l => l.code === item.list)
    const code = `offered_to_${item.code}`.slice(0, LIMITS.code)
    this.extraLists.push({
      code,
      ...(list?.columns ? { columns: list.columns } : {}),
      rows: (list?.rows ?? []).filter(r => offered.has(r.code)),
    })
    const { narrowedBy: _, ...rest } = item
    return { ...rest, list: code }
  }

  /** Everything of a node but its items: rules and texts without what is hidden. */
  private rewritten<T extends object>(node: T, stand: Standpoint, type: ValueType): T {
    const visit = (value: unknown, key: string): unknown => {
      if (key === 'items') return value
      if (Array.isArray(value)) return value.map(v => visit(v, key))
      if (typeof value === 'object' && value !== null)
        return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, visit(v, k)]))
      if (typeof value !== 'string') return value
      if (RULES.has(key))
        return this.rule(value, stand, key === 'default' || key === 'value' ? type : BOOLEAN)
      const inner =
        key === 'heading' && 'kind' in stand && stand.kind === 'group' && isGroupPlace(stand)
          ? standpointInside(stand)
          : stand
      return TEXTS.has(key) ? this.text(value, inner) : value
    }
    // The shape is that of the node: only texts were replaced by texts.
    return visit(node, '') as T
  }

  private rule(text: string, stand: Standpoint, type: ValueType): string {
    const { plan, values } = this.filled
    const { expr, type: found } = plan.names.read(text, stand, type)
    if (!expr || !this.asksForHidden(expr)) return text
    this.wait(text)
    const run = compile(expr, plan.environment)
    const { entryOf } = stand
    const isOfEntry = entryOf && namesIn(expr).some(n => plan.names.placeOf(n)?.entryOf)
    return isOfEntry
      ? this.outcomeInEntry(entryOf, found, frame => run(frame.values))
      : print(literalOf(run(values), found))
  }

  /** What is found differs by entry: it travels with entries that are read; where they are filled, it is not known to the party. */
  private outcomeInEntry(group: GroupPlace, type: ValueType, find: (entry: Frame) => Value): string {
    return this.view.at[group.order] === 'reads' ? this.outcomes.replace(group, type, find) : 'null'
  }

  /** Quotes of what is hidden are left out. */
  private text(text: string, stand: Standpoint): string {
    return rewriteQuotes(text, source => {
      const { expr } = this.filled.plan.names.readQuote(source, stand)
      if (!expr) return '""'
      return this.asksForHidden(expr) ? 'null' : source
    })
  }

  private wait(text: string) {
    for (const code of decidingCodes(this.filled.plan, [text])) this.waitsFor.add(code)
  }

  private refetchOn = (): string[] =>
    this.filled.plan.places
      .filter(p => this.waitsFor.has(p.code) && p.kind !== 'section' && this.view.at[p.order] === 'fills')
      .map(p => p.code)

  private answers(): Answers {
    const inPlay = answersInPlay(this.filled)
    return Object.fromEntries(
      this.tops().flatMap(([code, access]) => {
        if (access === 'fills') return this.given[code] === undefined ? [] : [[code, this.given[code]]]
        const answer = inPlay[code]
        if (answer === undefined) return []
        const group = this.filled.plan.groups.get(code)?.place
        return [[code, group ? this.outcomes.withOutcomes(group, answer) : answer]]
      }),
    )
  }

  private access = () => Object.fromEntries(this.tops())

  private tops = (): [string, 'reads' | 'fills'][] =>
    this.filled.plan.places.flatMap((p): [string, 'reads' | 'fills'][] => {
      const access = this.view.at[p.order] ?? 'never'
      return access !== 'never' &&
        p.entryOf === null &&
        (p.kind === 'question' || (p.kind === 'group' && p.node.repeat !== undefined))
        ? [[p.code, access]]
        : []
    })
}

const isGroupPlace = (stand: Standpoint | Place): stand is Extract<Place, { kind: 'group' }> =>
  'kind' in stand && stand.kind === 'group'
/** The codes of the lists that questions take their rows from. */
const listsIn = (items: readonly Item[]): string[] =>
  items.flatMap(i => {
    if (i.kind === 'group') return listsIn(i.items)
    return i.kind === 'question' && 'list' in i && i.list !== undefined ? [i.list] : []
  })

/** The narrowing that leaves just some rows. */
function isAmong(codes: readonly string[]): string {
  if (codes.length === 0) return 'false'
  return `list contains([${codes.map(c => JSON.stringify(c)).join(', ')}], row.code)`
}

/** A form without what no respondent gets: parties, turns, promises, walks, what is done by itself, the payment. */
function withoutInner(form: Form): Form {
  const { parties: _p, turns: _t, promises: _o, walks: _w, deliveries: _d, payment: _y, ...others } = form
  const { documents: _m, ...rest } = others
  return rest
}
