import type { Page } from '@playwright/test'
import axe from 'axe-core'

/** What assistive technology would stumble over on a page, with its name before each; but for some rules. */
export async function violationsOn(
  page: Page,
  name: string,
  without: readonly string[] = [],
): Promise<string[]> {
  await page.evaluate(axe.source)
  // Colours are judged where they have arrived: in the midst of a fade they are nobody's design.
  await page.evaluate(async () => {
    const ending = document.getAnimations().filter(a => a.effect?.getComputedTiming().endTime !== Infinity)
    await Promise.allSettled(ending.map(animation => animation.finished))
  })
  const found: string[] = await page.evaluate(async names => {
    const rules = Object.fromEntries(names.map(rule => [rule, { enabled: false }]))
    const result = await Reflect.get(window, 'axe').run(document, { resultTypes: ['violations'], rules })
    return result.violations.map(
      (v: { id: string; nodes: { html: string; failureSummary: string }[] }) =>
        `${v.id}: ${v.nodes
          .slice(0, 2)
          .map(n => `${n.html.slice(0, 200)} ${n.failureSummary.slice(0, 200)}`)
          .join(' | ')}`,
    )
  }, without)
  return found.map(v => `${name}: ${v}`)
}
