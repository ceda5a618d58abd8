import type { Page } from '@playwright/test'
import { riskBasis, riskKey } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'

/** Releases a form as it is on the server, its risks accepted; gives the token of its link. */
export async function releaseForm(page: Page, id: string, reason = 'a test', base = ''): Promise<string> {
  const { draft, revision } = await (await page.request.get(`${base}/api/forms/${id}`)).json()
  for (const risk of prove(draft, new Date().toISOString().slice(0, 10)).findings.filter(
    f => f.severity === 'risk',
  )) {
    await page.request.put(`${base}/api/forms/${id}/acceptances`, {
      data: { key: riskKey(risk), basis: riskBasis(draft, risk), reason },
    })
  }
  const made = await page.request.post(`${base}/api/forms/${id}/releases`, { data: { revision } })
  if (!made.ok()) throw new Error(`The form could not be released: ${await made.text()}`)
  return (await made.json()).token
}
