import { memberReader } from './members'
import type {
  Plan,
  PlannedQuestion,
  PlannedGroup,
  PlannedSection,
  Step,
  PlannedPlace,
  PlannedOffer,
  PlannedRule,
  Lock,
  PlannedCheck,
} from './planned'
import { compile } from '../expressions/compile'
import { FIRST_SLOT, type Compiled, type Environment } from '../expressions/compiled'
import { BOOLEAN, type ValueType } from '../expressions/types'
import { boundsOf } from '../form/bounds'
import { ownWords } from '../form/ownWords'
import type { Form } from '../form/definition'
import { FINISH } from '../form/finish'
import type { ChoiceType, QuestionOf } from '../form/questions'
import { isStandingName, STANDING_NAMES } from '../form/standing'
import { mayNotApply } from '../form/notApplicable'
import { listPlaces, type Place, type PlaceOf } from '../form/walk'
import { optionsOf } from '../form/rows'
import { sortByDependency } from './sortByDependency'
import { isQuestion } from './steps'
import { PlannedSkips } from './planSkips'
import { readerOf } from './readers'
import { BLANK } from './answerReading'
import { FormNames, type Standpoint } from '../form/scope'
import { indexRows, type ListIndex } from '../lists/listIndex'
import { compileNarrowing, type Narrowing } from '../lists/narrow'

/** Prepares a form for filling. Faults don't hinder it: a faulty rule is unknown, a faulty route is passed over. */
export function planOf(form: Form): Plan {
  return new Planner(form).plan()
}

class Planner {
  private readonly places: readonly Place[]
  /** By section, what stands in it. */
  private readonly inSection: ReadonlyMap<number, readonly Place[]>
  private readonly slots = new Map<string, number>()
  private readonly slotAt: number[] = []
  private readonly names: FormNames
  private readonly environment: Environment
  private readonly questions: PlannedQuestion[] = []
  private readonly groups = new Map<string, PlannedGroup>()
  private readonly skips: PlannedSkips
  private size = FIRST_SLOT + STANDING_NAMES.length

  constructor(private readonly form: Form) {
    this.places = listPlaces(form)
    this.inSection = bySection(this.places)
    this.names = new FormNames(form, this.places)
    for (const p of this.places) this.slotAt.push(this.claim(p))
    this.environment = {
      slotOf: name => this.slots.get(name) ?? standingSlot(name),
      memberOf: (name, member) => this.member(name, member),
    }
    this.skips = new PlannedSkips(this.places, (skip, from) => this.optional(skip.when, from))
  }

  private claim(p: Place): number {
    if (p.kind !== 'question' && !(p.kind === 'group' && p.node.repeat)) return -1
    const slot = this.size
    this.size += p.kind === 'question' && 'writeIn' in p.node && p.node.writeIn ? 2 : 1
    if (!this.slots.has(p.code)) this.slots.set(p.code, slot)
    return slot
  }

  plan(): Plan {
    const index = new Map(this.form.sections.map((s, i) => [s.code, i]))
    const roots = this.places.filter(p => p.kind === 'section')
    const sections = roots.map((place): PlannedSection => {
      const all: Step[] = []
      const steps = sortByDependency(
        this.stepsIn(place.section, p => p.entryOf === null && p.kind !== 'section', all),
      )
      return {
        place,
        steps,
        all,
        shown: this.optional(place.node.shownWhen, place),
        readOnly: this.lock(place.node.readOnly, place),
        checks: this.checks(place.node.validWhen, place),
        questions: all.filter(isQuestion),
        routes: (place.node.routes ?? []).flatMap((route, i) => {
          const target = route.to === FINISH && !index.has(FINISH) ? roots.length : index.get(route.to)
          return target === undefined || target <= place.section
            ? []
            : [{ when: this.optional(route.when, place), target, index: i, closing: route.closing ?? null }]
        }),
        exits: this.skips.outOf(place.section),
      }
    })
    this.questions.sort((a, b) => a.place.order - b.place.order)
    const byCode = new Map<string, PlannedQuestion>()
    for (const q of this.questions) if (!byCode.has(q.place.code)) byCode.set(q.place.code, q)
    const end: Standpoint = { section: Math.max(0, roots.length - 1), groups: [], entryOf: null }
    return {
      form: this.form,
      places: this.places,
      sections,
      skips: this.skips.all,
      questions: this.questions,
      byCode,
      groups: this.groups,
      names: this.names,
      environment: this.environment,
      size: this.size,
      closings: (this.form.closings ?? []).map(closing => ({
        closing,
        when: this.optional(closing.when, end),
      })),
      promises: (this.form.promises ?? []).map(p => this.rule(p.holds, end)),
      locks: sections.some(s => s.readOnly !== null || s.all.some(step => step.readOnly !== null)),
    }
  }

  /** The steps of a section, or of one entry of a repeating group; everything met on the way goes into `all`. */
  private stepsIn(section: number, belongs: (place: Place) => boolean, all: Step[]): Step[] {
    const places = this.inSection.get(section) ?? []
    return places.filter(belongs).map(place => this.step(place, all))
  }

  private step(place: Place, all: Step[]): Step {
    const { node } = place
    const common: PlannedPlace = {
      is: 'plain',
      place,
      shown: this.optional(node.shownWhen, place),
      skips: this.skips.over(place),
      parent: place.groups[place.groups.length - 1]?.order ?? -1,
      readOnly: this.lock('readOnly' in node ? node.readOnly : undefined, place),
      checks: this.checksAt(place),
    }
    if (place.kind === 'question') {
      const step = this.question(place, common)
      all.push(step)
      this.questions.push(step)
      return step
    }
    if (place.kind !== 'group' || !place.node.repeat) {
      all.push(common)
      return common
    }
    const inner: Step[] = []
    const at = all.push(common) - 1
    const steps = sortByDependency(this.stepsIn(place.section, p => p.entryOf === place, inner))
    const orders = { from: place.order + 1, to: 1 + Math.max(place.order, ...inner.map(s => s.place.order)) }
    const slotsInside = inner.flatMap(s => this.slotAt[s.place.order] ?? -1).filter(s => s >= 0)
    const from = (this.slotAt[place.order] ?? 0) + 1
    const after = this.slotAt.slice(orders.to).find(s => s >= 0) ?? this.size
    const step: PlannedGroup = {
      is: 'entries',
      place,
      shown: common.shown,
      skips: common.skips,
      readOnly: common.readOnly,
      checks: common.checks,
      parent: common.parent,
      slot: this.slotAt[place.order] ?? -1,
      steps,
      inner,
      orders,
      slots: { from, to: slotsInside.length === 0 ? from : after },
      min: place.node.repeat.min ?? 0,
      max: place.node.repeat.max ?? DEFAULT_MOST,
    }
    all[at] = step
    all.push(...inner)
    if (!this.groups.has(place.code)) this.groups.set(place.code, step)
    return step
  }

  private question(place: PlaceOf<'question'>, common: PlannedPlace): PlannedQuestion {
    const { node } = place
    const slot = this.slotAt[place.order] ?? -1
    const said = this.lock('required' in node ? node.required : undefined, place)
    const isFirst = this.slots.get(place.code) === slot
    return {
      is: 'question',
      place,
      shown: common.shown,
      skips: common.skips,
      readOnly: common.readOnly,
      checks: common.checks,
      parent: common.parent,
      slot,
      otherSlot: isFirst && 'writeIn' in node && node.writeIn ? slot + 1 : -1,
      required: mayNotApply(node) ? null : said,
      said,
      default:
        'default' in node && node.default !== undefined
          ? this.rule(node.default, place, this.names.typeOf(place.code))
          : null,
      value: node.type === 'value' ? this.rule(node.value, place, null) : null,
      offer: node.type === 'choice' || node.type === 'choices' ? this.offer(node, place) : null,
      read: readerOf(node, this.form),
      last: { answer: null, offered: null, reading: BLANK },
    }
  }

  private offer(node: QuestionOf<ChoiceType>, place: Place): PlannedOffer {
    const rows = optionsOf(this.form, node) ?? []
    const rules = rows.some(r => r.shownWhen !== undefined)
      ? rows.map(r => this.optional(r.shownWhen, place))
      : null
    const narrow =
      node.narrowedBy === undefined ? null : this.rule(node.narrowedBy, place, BOOLEAN, node.list ?? '')
    const index = indexRows(rows)
    return {
      index,
      rows: index.byCode,
      rules,
      narrow,
      narrowed: narrow && this.narrowed(narrow, index),
      onlyOne: node.onlyOne === true,
    }
  }

  /** A narrowing with an error leaves nothing. */
  private narrowed({ expr }: PlannedRule, index: ListIndex): Narrowing {
    return expr ? compileNarrowing(expr, index, this.environment) : () => NOTHING
  }

  private lock = (when: true | string | undefined, stand: Standpoint): Lock =>
    when === true ? true : this.optional(when, stand)
  private checksAt(place: Place): PlannedCheck[] {
    const own = this.checks('validWhen' in place.node ? place.node.validWhen : undefined, place)
    return place.kind === 'question' ? [...own, ...this.bounds(place)] : own
  }
  private checks = (
    checks: { rule: string; message: string }[] | undefined,
    stand: Standpoint,
  ): PlannedCheck[] =>
    (checks ?? []).map(({ rule, message }, index) => {
      return { ...this.rule(rule, stand), kind: 'validWhen', index, message, quotes: true }
    })
  private bounds = (place: PlaceOf<'question'>): PlannedCheck[] =>
    boundsOf(place.node).map(({ index, rule, message, kind }) => {
      const said = ownWords(place.node, this.form.messages)[kind]
      return {
        ...this.rule(rule, place),
        kind: 'bound',
        index,
        message: said ?? message,
        quotes: said === undefined,
      }
    })
  private optional = (text: string | undefined, stand: Standpoint) =>
    text === undefined ? null : this.rule(text, stand)

  private rule(
    text: string,
    stand: Standpoint,
    wanted: ValueType | null = BOOLEAN,
    row: string | null = null,
  ): PlannedRule {
    const reading = this.names.read(text, stand, wanted, row)
    const { expr } = reading
    return { reading, expr, run: expr ? compile(expr, this.environment) : () => null }
  }

  /** What a path reaches through the answer of a question. */
  private member(name: string, member: string): Compiled | undefined {
    const place = this.names.placeOf(name)
    const slot = this.slots.get(name)
    if (place?.kind !== 'question' || slot === undefined) return undefined
    return memberReader(this.form, place.node, slot, member)
  }
}

/** The slot of a standing name; undefined for any other. */
const standingSlot = (name: string): number | undefined =>
  isStandingName(name) ? FIRST_SLOT + STANDING_NAMES.indexOf(name) : undefined

const NOTHING: ReadonlySet<string> = new Set()

function bySection(places: readonly Place[]): Map<number, Place[]> {
  const found = new Map<number, Place[]>()
  for (const place of places) {
    const inIt = found.get(place.section)
    if (inIt) inIt.push(place)
    else found.set(place.section, [place])
  }
  return found
}

/** Entries of a repeating group without a limit of its own. */
const DEFAULT_MOST = 50
