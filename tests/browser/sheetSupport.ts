import { expect, type Page } from '@playwright/test'
import { draftOf, pasteInto, saved } from './scriptSupport'
import { choose } from './support'
import { listPlaces, nodeText } from '../../core/form/walk'

/** A line of the script by its label, which a star may follow. */
const line = (page: Page, label: string) =>
  page
    .locator('[data-address]')
    .filter({ has: page.getByRole('button', { name: new RegExp(`^${label}(?: \\*)?$`) }) })
export async function openLine(page: Page, label: string) {
  await page.keyboard.press('Escape')
  await line(page, label).focus()
  await page.keyboard.press('Space')
  await expect(page.locator('.editor')).toBeVisible()
}

/** A new form from a sheet that is pasted into its first line. */
export async function pasteSheet(page: Page, title: string, sheet: string, last: string) {
  await page.getByLabel('Title of the new form').fill(title)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('New line', { exact: true })).toBeFocused()
  await pasteInto(page, sheet)
  await page.getByRole('button', { name: /^Insert \d+ questions$/ }).click()
  await expect(line(page, last)).toBeVisible()
}

/** Lines that follow one another become a group that is asked in entries; a line that only headed them goes. */
export async function makeEntries(page: Page, headed: string, first: string, lines: number, title: string) {
  await page.keyboard.press('Escape')
  await line(page, headed).focus()
  await page.keyboard.press('Delete')
  await line(page, first).focus()
  for (let i = 1; i < lines; i++) await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+g')
  await page.keyboard.press('Space')
  await page.locator('.editor').getByLabel('Title').fill(title)
  await page.locator('.editor').getByLabel('in entries').check()
}

export async function addCheck(
  page: Page,
  label: string,
  comparison: string,
  value: string,
  message: string,
) {
  await openLine(page, label)
  await page.getByRole('button', { name: '+ valid when …' }).click()
  await choose(page, 'Comparison', comparison)
  await page.getByLabel('Value').fill(value)
  await page.getByLabel('Value').press('Tab')
  await page.getByLabel('Message of check 1').fill(message)
}

/** Pastes a table into a new list, and takes it in as it was read. */
async function makeList(page: Page, name: string, table: string) {
  await page.getByLabel('Name of a new list').fill(name)
  await page.getByRole('button', { name: '+ list' }).click()
  await page.getByRole('gridcell').first().click()
  await pasteInto(page, table)
  await page.getByRole('button', { name: /^Take \d rows in$/ }).click()
  await expect(page.getByRole('button', { name: /^Take/ })).toBeHidden()
}

interface Cascaded {
  /** The question that takes its choices from the list. */
  label: string
  list: string
  table: string
}
/** Two lists, and two questions of which the second is narrowed by the first. */
export async function makeCascade(page: Page, [first, second]: readonly [Cascaded, Cascaded]) {
  await page.keyboard.press('Escape')
  await page.getByRole('tab', { name: 'Lists', exact: true }).click()
  for (const { list, table } of [first, second]) await makeList(page, list, table)
  await page.getByRole('tab', { name: 'Script', exact: true }).click()
  for (const { label, list } of [first, second]) {
    await openLine(page, label)
    await choose(page, 'Type', 'single choice')
    await choose(page, 'Where the choices come from', `the list ${list}`)
  }
  await choose(page, 'Narrow by an earlier choice', /^by /)
}

/** A calculation as text: what is typed completes nothing. */
async function calculate(page: Page, label: string, text: string) {
  await openLine(page, label)
  // By its first letters: the list of types is longer than what is drawn of it.
  await page.locator('.editor').getByLabel('Type').focus()
  await page.keyboard.type('calc')
  await expect(page.locator('.editor').getByLabel('Type')).toHaveAttribute('value', 'calculated value')
  await page.getByRole('textbox', { name: 'Is', exact: true }).fill(text)
  await page.keyboard.press('Escape')
}
/** A product in each entry, and their sum, by the labels of what they are made of. */
export async function makeTotal(
  page: Page,
  { group, pieces, price, own, total }: Record<'group' | 'pieces' | 'price' | 'own' | 'total', string>,
) {
  await page.keyboard.press('Escape')
  await line(page, price).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type(own)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await saved(page)
  const places = listPlaces(await draftOf(page, page.url().split('/')[4] ?? ''))
  const codeOf = (label: string) => places.find(p => nodeText(p.node).text === label)?.code
  await calculate(page, own, `${codeOf(pieces)} * ${codeOf(price)}`)
  const sum = `sum(${codeOf(group)}.${codeOf(own)})`
  await calculate(page, total, `if count(${codeOf(group)}) > 0 then ${sum} else 0`)
}

/** Two parties: the first fills all but one section, which the second fills. */
export async function makeTurns(page: Page, [first, second]: readonly [string, string], section: string) {
  await page.keyboard.press('Escape')
  await page.getByRole('tab', { name: 'Parties' }).click()
  for (const name of [first, second]) {
    await page.getByLabel('Name of a new party').fill(name)
    await page.getByRole('button', { name: '+ party' }).click()
    await page.getByRole('button', { name: '+ turn' }).click()
  }
  const cell = (turn: string) => page.getByRole('cell', { name: new RegExp(`^${turn}, ${section}: `) })
  await cell(first).focus()
  await page.keyboard.press('n')
  await cell(second).focus()
  await page.keyboard.press('f')
  await page.getByRole('tab', { name: 'Script', exact: true }).click()
}

/** Looks at the answers, and gives them on to the next party. */
export async function handOn(page: Page, to: string) {
  await page.getByRole('button', { name: 'Check your answers' }).click()
  await page.getByRole('button', { name: 'Hand on' }).click()
  await expect(page.getByRole('heading', { name: `Handed on to ${to}` })).toBeVisible()
}
