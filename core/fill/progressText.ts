import type { Filled } from './frame'
import { rangeOfPages } from './pageRange'
import type { Page } from './pages'
import { quotedText } from './quote'

/** How far a response is, honest about what may still be asked: “Question 2 of 4 to 12”. `at`: the index of the page. */
export function progressText(filled: Filled, pages: readonly Page[], at: number): string {
  const page = pages[at]
  const word = page === undefined || page.only === null ? 'Part' : 'Question'
  const { least, most } = rangeOfPages(filled, pages, at)
  return `${word} ${at + 1} of ${least === most ? least : `${least} to ${most}`}`
}

/** What the button that leaves a page says; `next`: the page that follows, undefined after the last. */
export function nextPageText(filled: Filled, next: Page | undefined): string {
  if (next === undefined) return 'Check your answers'
  if (next.only !== null) return 'Next'
  const section = filled.plan.sections[next.section]
  return `Next: ${section ? quotedText(filled, section.place.node.title, section.place) : ''}`
}
