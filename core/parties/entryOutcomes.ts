import type { Value, ValueType } from '../expressions/types'
import { answerOf } from '../fill/answers'
import type { Filled, Frame } from '../fill/frame'
import { isRecord, type Answer } from '../form/answers'
import type { Item } from '../form/definition'
import type { GroupPlace } from '../form/walk'

/** What an outcome can be kept as in an entry, by the type of the rule. */
const HOLDS: Partial<Record<ValueType['kind'], 'text' | 'number' | 'yesNo' | 'date'>> = {
  text: 'text',
  number: 'number',
  boolean: 'yesNo',
  date: 'date',
}

interface Outcome {
  group: GroupPlace
  code: string
  find: (entry: Frame) => Value
}

/**
 * Rules inside entries over what a party does not see have an outcome for each entry. It travels in the entry, as a hidden value that the rule
 * is replaced by.
 */
export class EntryOutcomes {
  private readonly all: Outcome[] = []
  private waiting: Item[] = []
  private count = 0

  constructor(
    private readonly filled: Filled,
    private readonly hidden: ReadonlySet<string>,
  ) {}

  /**
   * Keeps the outcome of a rule for every entry of the group around its place.
   * @returns the rule in its stead: the code of the value that holds it; `null` where a value of that type can't be kept
   */
  replace(group: GroupPlace, type: ValueType, find: (entry: Frame) => Value): string {
    const holds = HOLDS[type.kind]
    if (!holds) return 'null'
    const code = this.unusedCode()
    this.all.push({ group, code, find })
    this.waiting.push({ kind: 'question', code, label: code, type: 'hidden', holds })
    return code
  }

  /** The items that hold the outcomes kept since this was asked last: they stand before what they are for. */
  takeItems(): Item[] {
    const items = this.waiting
    this.waiting = []
    return items
  }

  private unusedCode(): string {
    do this.count += 1
    while (this.filled.plan.names.placeOf(`outcome_${this.count}`))
    return `outcome_${this.count}`
  }

  /** The answer of a repeating group without what is hidden in its entries, and with their outcomes. */
  withOutcomes(group: GroupPlace, answer: Answer, around: Frame = this.filled): Answer {
    if (!Array.isArray(answer)) return answer
    const frames = around.entries.get(group.order) ?? []
    return answer.map((entry: Answer, i) => {
      const frame = frames[i]
      return isRecord(entry) && frame ? this.cutEntry(group, entry, frame) : entry
    })
  }

  private cutEntry(group: GroupPlace, entry: Readonly<Record<string, Answer>>, frame: Frame): Answer {
    const { plan } = this.filled
    const seen = Object.entries(entry).flatMap(([code, answer]): [string, Answer][] => {
      if (this.hidden.has(code)) return []
      const inner = plan.groups.get(code)?.place
      return [[code, inner ? this.withOutcomes(inner, answer, frame) : answer]]
    })
    const outcomes = this.all
      .filter(o => o.group.order === group.order)
      .flatMap(({ code, find }): [string, Answer][] => {
        const answer = answerOf(find(frame))
        return answer === null ? [] : [[code, answer]]
      })
    return Object.fromEntries([...seen, ...outcomes])
  }
}
