import type { Browser, Page } from '@playwright/test'
import { linkTo, responsesOf } from './support'

interface Waiting {
  id: string
  name: string
  handedOffAt: string | null
}
/** The turns of the only response that wait, by name, each with a new private link. */
export async function linksOf(page: Page, id: string): Promise<Map<string, string>> {
  const [response] = (await responsesOf(page, id)).rows
  const details: { turns: Waiting[] } = await (
    await page.request.get(`/api/responses/${response?.id}`)
  ).json()
  const links = new Map<string, string>()
  for (const turn of details.turns.filter(t => t.handedOffAt === null))
    links.set(turn.name, await linkTo(page, turn.id))
  return links
}

/** Answers what a turn asks and hands on. */
export async function handOn(page: Page, label: string, answer: string) {
  await page.getByLabel(label).last().fill(answer)
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Hand on' }).click()
}

/** A page of somebody else, in a browser of their own. */
export const newPage = async (browser: Browser) => (await browser.newContext()).newPage()
