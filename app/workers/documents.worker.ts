import { blankLabel, openLabel } from '../../core/documents/blankLabel'
import type { DocumentContent } from '../../core/documents/content'
import { fillDocx } from '../../core/documents/docx/fillDocx'
import { prepareDocx, type PreparedDocx } from '../../core/documents/docx/prepareDocx'
import { writeDocx } from '../../core/documents/docx/writeDocx'
import { readContent } from '../../core/documents/docx/readContent'
import { DRAWN_ON } from '../../core/fill/drawnSignature'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Plan } from '../../core/fill/planned'
import { isRecord, type Answer, type Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { DocumentTag } from '../../core/form/documents'
import type { WrittenDocument } from '../../core/form/written'
import type { Standing } from '../../core/form/standing'

/** The form, a template, and pictures that were given, which are brought before it is filled; a document that is to be shown as it would be with some answers. */
export type PreviewQuestion =
  | { is: 'form'; form: Form }
  | { is: 'template'; file: string; bytes: Uint8Array }
  | { is: 'picture'; file: string; bytes: Uint8Array }
  | {
      is: 'document'
      asked: number
      answers: Answers
      today: string
      standing: Standing
      /** What was written, or the id of what was brought with its tags as the form has them. */
      template: { written: WrittenDocument } | { file: string; tags: readonly DocumentTag[] }
    }
/** The document as it would be, or why it can't be. */
export type PreviewAnswer = { asked: number } & (
  { content: DocumentContent; error?: undefined } | { content?: undefined; error: string }
)

/** The templates that were brought, by their ids. */
const templates = new Map<string, Uint8Array>()
/** The pictures that were brought, by the ids of their files. */
const pictures = new Map<string, Uint8Array>()
let plan: Plan | null = null
type DocumentQuestion = Extract<PreviewQuestion, { is: 'document' }>

addEventListener('message', ({ data }: MessageEvent<PreviewQuestion>) => {
  if (data.is === 'form') {
    plan = planOf(data.form)
    return
  }
  if (data.is === 'template') {
    templates.set(data.file, data.bytes)
    return
  }
  if (data.is === 'picture') {
    pictures.set(data.file, data.bytes)
    return
  }
  const { asked } = data
  show(data).then(
    content => postMessage({ asked, content } satisfies PreviewAnswer),
    (error: unknown) => {
      const why = error instanceof Error ? error.message : String(error)
      postMessage({ asked, error: why } satisfies PreviewAnswer)
    },
  )
})

async function show(question: DocumentQuestion): Promise<DocumentContent> {
  const { answers, today, standing, template } = question
  if (!plan) throw new Error('The form is not here yet.')
  const prepared = await prepare(template)
  const drawn = await drawAll(answers)
  const source = {
    drawn: (path: string) => drawn.get(path) ?? null,
    file: (id: string) => pictures.get(id) ?? null,
  }
  const filled = fill(plan, answers, today, standing)
  return readContent(fillDocx(prepared, filled, { pictures: source, blank: blankLabel, open: openLabel }))
}

async function prepare(template: DocumentQuestion['template']): Promise<PreparedDocx> {
  if ('written' in template) return prepareDocx(await writeDocx(template.written))
  const bytes = templates.get(template.file)
  if (!bytes) throw new Error('The template is not here yet.')
  return prepareDocx(bytes, template.tags)
}

/** Every drawn signature of some answers as a PNG, by its path. */
async function drawAll(answers: Answers): Promise<Map<string, Uint8Array>> {
  const found = new Map<string, Uint8Array>()
  for (const path of pathsIn(Object.values(answers))) found.set(path, await drawSignature(path))
  return found
}

function pathsIn(answers: readonly Answer[]): string[] {
  return answers.flatMap((answer): string[] => {
    if (Array.isArray(answer)) return pathsIn(answer)
    if (!isRecord(answer)) return []
    const own = typeof answer.drawn === 'string' ? [answer.drawn] : []
    return [...own, ...pathsIn(Object.values(answer))]
  })
}

async function drawSignature(path: string): Promise<Uint8Array> {
  const canvas = new OffscreenCanvas(DRAWN_ON.width, DRAWN_ON.height)
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('This browser can’t draw signatures here.')
  pen.lineWidth = 3
  pen.lineCap = 'round'
  pen.stroke(new Path2D(path))
  return new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer())
}
