import type { Filled } from './frame'
import { problemsIn, type AnswerProblem } from './problems'
import { isQuestion, isRepeating } from './steps'
import type { PlannedSection, Step } from './planned'

/** One page of the respondent's way: a section, or one question of it with the notes before it. */
export interface Page {
  section: number
  /** The place order of the question or repeating group that the page asks; null for a whole section. */
  only: number | null
}

/** The pages of a response as it stands, in order. What asks nothing (hidden values) has no page of its own. */
export function pagesOf(filled: Filled): Page[] {
  const { plan } = filled
  if (plan.form.pace !== 'question') return filled.path.map(section => ({ section, only: null }))
  return filled.path.flatMap((section): Page[] => {
    const asked = askedSteps(plan.sections[section], filled)
    return asked.length === 0
      ? [{ section, only: null }]
      : asked.map(step => ({ section, only: step.place.order }))
  })
}

const isSilent = (step: Step) =>
  isQuestion(step) && (step.place.node.type === 'hidden' || step.place.node.type === 'value')

/** Whether something has a page of its own where questions come one at a time. */
export const asksSomething = (step: Step): boolean =>
  (isQuestion(step) || isRepeating(step)) && !isSilent(step)

const askedSteps = (section: PlannedSection | undefined, filled: Filled) =>
  [...(section?.steps ?? [])]
    .filter(s => asksSomething(s) && filled.inPlay[s.place.order])
    .sort((a, b) => a.place.order - b.place.order)

/** By place order: what a page shows of its section; null for all of it. Notes and values stand with the question that follows, at the end with the last. */
export function shownOn(filled: Filled, page: Page): ReadonlySet<number> | null {
  if (page.only === null) return null
  const steps = [...(filled.plan.sections[page.section]?.steps ?? [])].sort(
    (a, b) => a.place.order - b.place.order,
  )
  const asked = askedSteps(filled.plan.sections[page.section], filled).map(s => s.place.order)
  const from = asked.filter(o => o < (page.only ?? 0)).at(-1) ?? -1
  const isLast = asked.at(-1) === page.only
  return new Set(
    steps
      .map(s => s.place.order)
      .filter(o => (o > from && o <= (page.only ?? 0)) || (isLast && o > (page.only ?? 0))),
  )
}

/**
 * The page on which something that is wrong or missing is said: where its question is asked, for a group where its last question is, for a
 * section its last page. Undefined where the way does not lead there.
 */
export function pageOfProblem(filled: Filled, { step: { place } }: AnswerProblem): Page | undefined {
  const pages = pagesOf(filled).filter(p => p.section === place.section)
  const last = pages.at(-1)
  if (place.kind === 'section' || last?.only == null) return last
  const asked = new Map(filled.plan.places.map(p => [p.order, p]))
  const isInside = (p: Page) => asked.get(p.only ?? -1)?.groups.some(g => g.order === place.order)
  const outer = place.groups.find(g => pages.some(p => p.only === g.order))
  return (
    pages.find(p => p.only === (outer ?? place).order) ??
    pages.findLast(isInside) ??
    pages.find(p => (p.only ?? 0) > place.order) ??
    last
  )
}

/** What keeps a page from being left, in the order of the form. */
export function problemsOnPage(filled: Filled, page: Page): AnswerProblem[] {
  const section = filled.plan.sections[page.section]
  if (!section) return []
  const problems = problemsIn(filled, section)
  if (page.only === null) return problems
  return problems.filter(problem => pageOfProblem(filled, problem)?.only === page.only)
}
