import { namesIn } from '../expressions/tree'
import type { Filled } from './frame'
import { asksSomething, type Page } from './pages'
import { isQuestion } from './steps'
import type { Plan, PlannedRule, PlannedSection, PlannedSkip, Step } from './planned'

/** Fewest and most pages that a response can come to have, counted from its first. */
export interface PageRange {
  least: number
  most: number
}

/**
 * How many pages a response can have in all, whatever is answered of what is not said yet from the page `at` on: what no open answer decides is
 * counted as it is, everything else as may be and may not be. The bounds hold; they are not always reached.
 */
export function rangeOfPages(filled: Filled, pages: readonly Page[], at: number): PageRange {
  const { plan } = filled
  const page = pages[at]
  if (!page) return { least: pages.length, most: pages.length }
  const here = page.only ?? plan.sections[page.section]?.place.order ?? 0
  const waiting = new Waiting(filled, here, page.section)
  const range = { least: at + 1, most: at + 1 }
  const ahead = plan.sections.slice(page.section)
  /** Whether the way may lead on otherwise than it does now. */
  let isOpen = false
  for (const section of ahead) {
    const isHere = section.place.section === page.section
    const isReached = isHere || filled.path.includes(section.place.section)
    const isSure: boolean = isHere || (!isOpen && !waiting.isRuleOpen(section.shown))
    addPages(range, countPages(filled, section, waiting, isHere ? here : null), isSure, isReached)
    isOpen ||= waiting.isWayOpen(section) || (!isSure && section.routes.length + section.exits.length > 0)
  }
  return range
}

/** Adds the pages of a section. `isSure`: whether it is settled that the way leads there, or does not. */
function addPages(range: PageRange, own: PageRange, isSure: boolean, isReached: boolean) {
  if (isSure && isReached) range.least += own.least
  if (!isSure || isReached) range.most += own.most
}

/** The pages of a section, where the way leads through it; `after`: only those behind this place. */
function countPages(
  filled: Filled,
  section: PlannedSection,
  waiting: Waiting,
  after: number | null,
): PageRange {
  const least = after === null ? 1 : 0
  if (filled.plan.form.pace !== 'question') return { least, most: least }
  const asked = section.steps.filter(step => asksSomething(step) && step.place.order > (after ?? -1))
  // What would be in play where the way does not lead to now is not known.
  const isKnown = filled.path.includes(section.place.section)
  const isAsked = (step: Step) => filled.inPlay[step.place.order] === true
  const isOpen = (step: Step) => !isKnown || waiting.isStepOpen(step, section)
  const sure = asked.filter(step => !isOpen(step) && isAsked(step)).length
  const possible = asked.filter(step => isOpen(step) || isAsked(step)).length
  // A section that asks nothing has one page.
  return { least: Math.max(sure, least), most: Math.max(possible, least) }
}

/** What waits for answers that are not given yet, from a place on. */
class Waiting {
  private readonly open: Set<string>

  constructor({ plan, values }: Filled, here: number, section: number) {
    const isUnsaid = (slot: number) => (values[slot] ?? null) === null
    const unsaid = plan.questions.filter(q => q.place.order >= here && isUnsaid(q.slot))
    this.open = new Set(unsaid.map(q => q.place.code))
    for (const group of plan.groups.values()) if (group.place.order >= here) this.open.add(group.place.code)
    // What was said may not stand when what it rests on is answered.
    for (let size = -1; size !== this.open.size;) {
      size = this.open.size
      this.spread(plan, section)
    }
  }

  private spread(plan: Plan, from: number) {
    let isReachOpen = false
    for (const section of plan.sections) {
      if (section.place.section > from) isReachOpen ||= this.isRuleOpen(section.shown)
      for (const step of section.all)
        if (isReachOpen || this.isStepOpen(step, section) || this.isAnswerOpen(step))
          this.open.add(step.place.code)
      isReachOpen ||= this.isWayOpen(section)
    }
  }

  /** Whether what was said, or is worked out, may become something else. */
  private isAnswerOpen(step: Step): boolean {
    if (!isQuestion(step)) return false
    const { value, default: standing, readOnly, offer } = step
    const rules = [
      value,
      standing,
      readOnly === true ? null : readOnly,
      offer?.narrow,
      ...(offer?.rules ?? []),
    ]
    return rules.some(rule => this.isRuleOpen(rule ?? null))
  }

  isRuleOpen = (rule: PlannedRule | null): boolean =>
    rule?.expr ? namesIn(rule.expr).some(name => this.open.has(name)) : false

  private isSkipOpen = ({ when, from }: PlannedSkip): boolean =>
    this.isRuleOpen(when) || this.open.has(from.code)

  /** Whether the way out of a section may be another one yet. */
  isWayOpen = ({ routes, exits }: PlannedSection): boolean =>
    routes.some(route => this.isRuleOpen(route.when)) || exits.some(this.isSkipOpen)

  /** Whether something may come into play or go out of it yet, by itself or with what stands around it. */
  isStepOpen(step: Step, section: PlannedSection): boolean {
    const around = section.all.filter(s => s.place.kind === 'group' && step.place.groups.includes(s.place))
    return [step, ...around].some(s => this.isRuleOpen(s.shown) || s.skips.some(this.isSkipOpen))
  }
}
