import { blankLabel } from '../../core/documents/blankLabel'
import { fillDocx } from '../../core/documents/docx/fillDocx'
import { prepareDocx } from '../../core/documents/docx/prepareDocx'
import { readContent } from '../../core/documents/docx/readContent'
import { writeDocx } from '../../core/documents/docx/writeDocx'
import { NO_PICTURES } from '../../core/documents/pictures'
import { tagsOf } from '../../core/documents/templateTags'
import { bringPatternEngine } from '../../core/expressions/patternEngine'
import { seededRandom } from '../../core/fill/draw'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import { drawPlausibleAnswers } from '../../core/fill/plausible'
import haulOut from '../../demo/forms/haul_out.form.json'
import { readForm } from '../../core/form/read'
import { hasOffice, setByOffice } from '../../server/services/documents/office'
import { fillTemplate, sealDocument, setPdf } from '../../server/threads/documents'
import { median } from './pages'

type Say = (what: string, value: string, goal: string) => void
const TODAY = '2026-11-24'
const COUNT = 1_000
const PDFS = 50
const SIGNED = { turn: 'Yard office', role: 'Foreman', place: 'Wherry Quay', at: '2026-11-24 10:30 UTC' }
const SEAL = {
  ...{ heading: 'Signatures', waiting: [], lines: ['Works order, response 1'] },
  signed: [
    { ...SIGNED, name: 'Lorens Hale', drawn: 'M60 120 L80 60 L96 40 L92 80 L84 130 L110 134 L140 118' },
    { ...SIGNED, name: 'Orla Quay', drawn: null },
  ],
}

/** The works order of the demo for many responses: made, shown after a keystroke, as PDF files, and how much memory that takes. */
export async function documents(say: Say): Promise<void> {
  await bringPatternEngine()
  const { form } = readForm(haulOut)
  const order = form?.documents?.find(d => d.code === 'works_order')
  if (!form || !order || !('written' in order.template)) throw new Error('The demo has no works order.')
  const { template } = order
  const plan = planOf(form)
  const next = seededRandom(11)
  const responses = Array.from({ length: COUNT }, () => drawPlausibleAnswers(plan, {}, TODAY, next) ?? {})
  const asked = { form, begunOn: TODAY, standing: {}, template, tags: tagsOf(template), files: [] }
  const before = process.memoryUsage().rss
  let peak = before
  const begun = performance.now()
  let last = new Uint8Array()
  for (const answers of responses) {
    const { bytes, refused } = await fillTemplate({ ...asked, answers })
    if (refused !== null) throw new Error(refused)
    last = new Uint8Array(bytes)
    peak = Math.max(peak, process.memoryUsage().rss)
  }
  const seconds = (performance.now() - begun) / 1_000
  say('works orders made in one thread', `${(COUNT / seconds).toFixed(0)} a second`, '')
  say(`memory more while ${COUNT} are made`, `${((peak - before) / 1_000_000).toFixed(0)} MB`, '')

  const file = await writeDocx(template.written)
  const shown = responses.slice(0, PDFS).map(answers => {
    const from = performance.now()
    const filled = fill(planOf(form), answers, TODAY, {})
    const prepared = prepareDocx(file, tagsOf(template))
    readContent(fillDocx(prepared, filled, { pictures: NO_PICTURES, blank: blankLabel }))
    return performance.now() - from
  })
  say('the same shown after a keystroke (behind a pause of 200 ms)', `${median(shown).toFixed(0)} ms`, '')
  const plain = performance.now()
  for (let i = 0; i < PDFS; i += 1) await setPdf({ bytes: last, title: 'Works order' })
  say('as a PDF file, plainly', `${((performance.now() - plain) / PDFS).toFixed(0)} ms`, '')
  const sealing = performance.now()
  for (let i = 0; i < PDFS; i += 1) sealDocument({ bytes: last, seal: SEAL })
  say('a page of two signatures added', `${((performance.now() - sealing) / PDFS).toFixed(0)} ms`, '')
  if (!(await hasOffice())) return say('as a PDF file by LibreOffice', 'is not here', '')
  const exact = performance.now()
  for (let i = 0; i < 5; i += 1) await setByOffice(last)
  say('as a PDF file by LibreOffice', `${((performance.now() - exact) / 5).toFixed(0)} ms`, '')
}
