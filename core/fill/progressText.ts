import type { Filled } from './frame'
import { isSettled, type Page } from './pages'
import { quotedText } from './quote'

/** How far a response is, honest about what may still be asked: “Question 2 of about 5”. `at`: the index of the page. */
export function progressText(filled: Filled, pages: readonly Page[], at: number): string {
  const page = pages[at]
  const word = page === undefined || page.only === null ? 'Part' : 'Question'
  const about = isSettled(filled, pages, at) ? '' : 'about '
  return `${word} ${at + 1} of ${about}${pages.length}`
}

/** What the button that leaves a page says; `next`: the page that follows, undefined after the last. */
export function nextPageText(filled: Filled, next: Page | undefined): string {
  if (next === undefined) return 'Check your answers'
  if (next.only !== null) return 'Next'
  const section = filled.plan.sections[next.section]
  return `Next: ${section ? quotedText(filled, section.place.node.title, section.place) : ''}`
}
