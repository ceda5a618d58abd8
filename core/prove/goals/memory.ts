import { listsOf } from '../../form/transform'
import type { ChoiceList } from '../../form/choiceLists'
import { namesIn, type Expr } from '../../expressions/tree'
import type { Answers } from '../../form/answers'
import { ownRules, isQuestion, isRepeating } from '../../fill/steps'
import type { PlannedSection, PlannedSkip, Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import { WORDS } from '../acceptance'
import { namesAround } from './dependencyClosure'
import type { Decision, Goal } from './goal'
import type { Model } from '../model/model'
import { handOffConditions } from '../model/turnPlan'

/** So many texts are kept apart by number before it is begun afresh. */
const MOST_KEPT = 400_000
/** A list of more rows is not written out: that would take longer than deciding again. */
const MOST_ROWS = 5_000

/** What a list says; a long one is taken to be another one whenever it is another object. */
const listText = ({ code, columns, rows }: ChoiceList, proofs: number): string =>
  rows.length > MOST_ROWS ? `${code} ${proofs}` : JSON.stringify([code, columns, rows])

/** What was decided of a goal, and the state of everything that it rests on. */
export interface Kept {
  stamp: number
  whole: number
  decision: Decision
  isOpen: boolean
}

/** What earlier proofs of a form decided: a later one takes it over as far as nothing that it rests on has changed. */
export class Memory {
  private ids = new Map<string, number>()
  readonly decisions = new Map<string, Kept>()
  readonly witnesses = new Map<string, { stamp: number; whole: number; answers: Answers | null }>()

  /** A number that is the same for the same text, and for no other. */
  idOf(text: string): number {
    const known = this.ids.get(text)
    if (known !== undefined) return known
    const id = this.ids.size + 1
    this.ids.set(text, id)
    return id
  }

  /** Proofs that it was used in. */
  proofs = 0
  private byNode = new WeakMap<object, number>()

  /**
   * A number for what a part of a definition says, written out once for each object: edits leave what they don't touch the same object, so
   * that a proof after an edit writes out only what was touched.
   */
  idOfNode(node: object, write: () => string): number {
    const known = this.byNode.get(node)
    if (known !== undefined) return known
    const id = this.idOf(write())
    this.byNode.set(node, id)
    return id
  }

  /** At the beginning of a proof: begins afresh when too much was kept. */
  begin() {
    this.proofs += 1
    if (this.ids.size < MOST_KEPT) return
    this.ids = new Map()
    this.byNode = new WeakMap()
    this.decisions.clear()
    this.witnesses.clear()
  }
}

/**
 * Numbers for the state of everything that a goal rests on. That of a question takes in what its own rules name, and so on (as in a Merkle
 * tree): two proofs give the same number just when all of that reads the same. From an earlier section all checks there count, since
 * whoever comes from it has passed them.
 */
export class Stamps {
  private readonly ofPlace = new Map<Place, number>()
  private readonly ofStep = new Map<number, number>()
  private readonly ofChecks: number[] = []
  private readonly ofSection: number[] = []
  private readonly ofBlockers: number[] = []
  private readonly ofAll: number[] = []
  private readonly ofList = new Map<string, number>()
  private readonly working = new Set<number>()
  private form: number

  constructor(
    private readonly model: Model,
    private readonly memory: Memory,
  ) {
    const { form, plan } = model
    this.form = memory.idOf(JSON.stringify([form.turns, form.parties, model.today]))
    for (const list of form.lists ?? [])
      this.ofList.set(
        list.code,
        memory.idOfNode(list, () => listText(list, memory.proofs)),
      )
    let [blockers, all] = [0, 0]
    for (const section of plan.sections) {
      const at = section.place.section
      this.ofBlockers[at] = blockers
      this.ofAll[at] = all
      this.ofSection[at] = this.sectionStamp(section)
      for (const step of [...section.steps, ...section.all]) this.stepStamp(step)
      this.ofChecks[at] = this.join(
        'checks',
        [section, ...section.all]
          .filter(s => s.checks.length > 0)
          .map(s =>
            this.join(
              JSON.stringify(s.checks.map(c => [c.kind, c.index])) + this.placeStamp(s.place),
              s.checks.flatMap(c => this.names(c.expr, at)),
            ),
          ),
      )
      for (const blocker of model.blockers)
        if (blocker.place.section === at)
          blockers = this.join('blocker', [
            blockers,
            this.placeStamp(blocker.place),
            this.ofChecks[at] ?? 0,
            'is' in blocker ? this.stepStamp(blocker) : 0,
          ])
      all = this.join('all', [
        all,
        this.ofChecks[at] ?? 0,
        this.ofSection[at] ?? 0,
        ...section.all.map(s => this.stepStamp(s)),
      ])
    }
    for (const expr of handOffConditions(model.turns))
      this.form = this.join('handOff', [this.form, ...this.names(expr, plan.sections.length)])
    const end = plan.sections.length
    this.ofBlockers[end] = blockers
    this.ofAll[end] = all
    this.ofSection[end] = this.join('end', this.wayStamps(end))
  }

  private join = (what: string, parts: readonly number[]): number =>
    this.memory.idOf(`${what} ${parts.join()}`)

  /** What a thing says of itself, and where it stands. */
  private placeStamp(place: Place): number {
    const known = this.ofPlace.get(place)
    if (known !== undefined) return known
    const { node, section, address, groups, entryOf } = place
    const rules = this.memory.idOfNode(node, () =>
      JSON.stringify(node, (key, value: unknown) => (WORDS.has(key) ? undefined : value)),
    )
    const stamp = this.memory.idOf(
      `${section} ${address} ${groups.map(g => g.address).join()} ${entryOf?.address ?? ''} ${rules}`,
    )
    this.ofPlace.set(place, stamp)
    return stamp
  }

  private stepStamp(step: Step): number {
    const { order, section } = step.place
    const known = this.ofStep.get(order)
    if (known !== undefined) return known
    if (this.working.has(order)) return 0 // a circle: nothing that rests on it is decided
    this.working.add(order)
    const exprs = [
      ...ownRules(step).map(r => r.expr),
      isQuestion(step) && step.said && step.said !== true ? step.said.expr : null,
    ]
    const around = this.model.stepAt(step.parent)
    const { node } = step.place
    const stamp = this.join('step', [
      this.placeStamp(step.place),
      around ? this.stepStamp(around) : 0,
      this.ofSection[section] ?? 0,
      ...exprs.flatMap(e => this.names(e, section)),
      ...step.skips.flatMap(skip => this.skipStamps(skip, section)),
      ...(isRepeating(step) ? step.inner.map(s => this.stepStamp(s)) : []),
      ...listsOf(node).map(list => this.ofList.get(list) ?? 0),
    ])
    this.working.delete(order)
    this.ofStep.set(order, stamp)
    return stamp
  }

  /** The stamps of the questions and groups that a condition names, as seen from a section. */
  private names(expr: Expr | null | undefined, from: number): number[] {
    return expr ? namesIn(expr).flatMap(name => this.named(name, from)) : []
  }

  private named(name: string, from: number): number[] {
    const step = this.model.stepOf(name) ?? this.model.plan.groups.get(name)
    if (!step) return []
    const own = this.stepStamp(step)
    return step.place.section < from ? [own, this.ofChecks[step.place.section] ?? 0] : [own]
  }

  private sectionStamp({ place, shown, readOnly }: PlannedSection): number {
    return this.join('section', [
      this.placeStamp(place),
      ...this.names(shown?.expr, place.section),
      ...this.names(readOnly === true ? null : readOnly?.expr, place.section),
      ...this.wayStamps(place.section),
    ])
  }

  /** What decides whether a skip is taken, and which one it is; what it says itself stands with its question. */
  private skipStamps({ from, index, when, above, target }: PlannedSkip, at: number): number[] {
    const exprs = [when, ...above.map(s => s.when)].map(rule => rule?.expr)
    return [index, target, ...this.named(from.code, at), ...exprs.flatMap(e => this.names(e, at))]
  }

  /** What decides whether the routes lead to a section. */
  private wayStamps(at: number): number[] {
    return this.model.plan.sections
      .slice(this.model.waypoint[at] ?? 0, at)
      .filter(s => s.routes.length > 0 || s.exits.length > 0)
      .flatMap(s => [
        this.ofSection[s.place.section] ?? 0,
        ...s.routes.flatMap(r => this.names(r.when?.expr, at)),
        ...s.exits.flatMap(exit => this.skipStamps(exit, at)),
      ])
  }

  /** The state of what decides a goal. */
  of({ section, leaving, names, at }: Goal): number {
    const step = at ? this.model.stepAt(at.order) : undefined
    return this.join(leaving ? 'leave' : 'goal', [
      this.form,
      section,
      at ? this.placeStamp(at) : 0,
      step ? this.stepStamp(step) : 0,
      this.ofSection[section] ?? 0,
      leaving ? (this.ofSection[section - 1] ?? 0) : 0,
      this.ofBlockers[section] ?? 0,
      ...[...names, ...(step ? namesAround(this.model, step) : [])].flatMap(name =>
        this.named(name, section),
      ),
    ])
  }

  /** The state of all that stands before the goal's section: an example answers what is required there. */
  before = ({ section }: Goal): number => this.ofAll[section] ?? 0
}
