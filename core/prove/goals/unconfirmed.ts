import { sameAnswer, type Answer } from '../../form/answers'
import { parseEntryCode } from '../model/entryCodes'
import type { Model } from '../model/model'
import type { Goal } from './goal'
import type { KnownState } from './knownState'
import { ShownBy } from './knownStates'
import { goThrough, reachState, type Slice } from './reachState'

/** What the solver found possible, to be shown by the evaluator. */
interface Claim {
  goal: Goal
  slice: Slice
  /** By question or outermost group: what the slice says of it. */
  says: ReadonlyMap<string, Answer>
}

/** Claims that one way through the form may show all at once, since no two say different things. */
interface Batch {
  claims: Claim[]
  says: Map<string, Answer>
  today: string
  turns: Slice['turns']
}

/** A claim is held against so many batches. */
const MOST_BATCHES = 24

/**
 * Goals that the solver found possible by exact rules. The evaluator is asked in batches: slices that agree in what they share are joined,
 * and one way through the form shows all of them. What it does not show is tried alone.
 */
export class Unconfirmed {
  private readonly claims: Claim[] = []

  constructor(private readonly model: Model) {}

  add(goal: Goal, slice: Slice) {
    const says = new Map<string, Answer>()
    for (const code of slice.decided) {
      const outermost = this.outermostOf(code)
      says.set(outermost, slice.answers[outermost] ?? null)
    }
    this.claims.push({ goal, slice, says })
  }

  private outermostOf(code: string): string {
    const { base, grid } = parseEntryCode(code)
    const place = this.model.stepOf(grid ?? base)?.place
    return place?.groups.find(g => g.node.repeat !== undefined)?.code ?? grid ?? base
  }

  /** Asks the evaluator, and gives the goals that it does not agree with. */
  confirm(): Goal[] {
    const alone = this.batches().flatMap(batch => this.notShown(batch))
    return alone.filter(({ goal, slice }) => reachState(this.model, goal, slice) === null).map(c => c.goal)
  }

  private batches(): Batch[] {
    const batches: Batch[] = []
    for (const claim of this.claims.splice(0)) {
      const batch = batches.slice(-MOST_BATCHES).find(b => agrees(b, claim))
      if (batch) {
        batch.claims.push(claim)
        for (const [code, answer] of claim.says) batch.says.set(code, answer)
        continue
      }
      const { today, turns } = claim.slice
      batches.push({ claims: [claim], says: new Map(claim.says), today, turns })
    }
    return batches
  }

  private notShown({ claims, says, today, turns }: Batch): Claim[] {
    const [first, ...others] = claims
    if (first && others.length === 0) return [first]
    const open = new Set(claims)
    const slice: Slice = {
      answers: Object.fromEntries(says),
      decided: this.decidedBefore(claims),
      today,
      turns,
    }
    const last = Math.max(...claims.map(c => c.goal.section))
    // A claim holds when its section has become the current one; what is missing there is filled only then.
    const visit = (known: KnownState) => {
      const shown = new ShownBy(this.model, known)
      for (const claim of open) if (shown.shows(claim.goal)) open.delete(claim)
    }
    visit(goThrough(this.model, slice, last, visit))
    return [...open]
  }

  /** The questions before the sections that claims are about: these stay as they are decided. */
  private decidedBefore(claims: readonly Claim[]): Set<string> {
    const decided = new Set<string>()
    for (const { goal, slice } of claims)
      for (const code of slice.decided)
        if ((this.model.stepOf(code)?.place.section ?? -1) < goal.section) decided.add(code)
    return decided
  }
}

const agrees = ({ says, today, turns }: Batch, claim: Claim): boolean =>
  today === claim.slice.today &&
  turns?.join() === claim.slice.turns?.join() &&
  [...claim.says].every(([code, answer]) => !says.has(code) || sameAnswer(says.get(code) ?? null, answer))
