import { contrastOf, LEAST_CONTRAST, readableOn, USUAL_GROUND } from '../../form/colours'
import type { Look } from '../../form/look'
import type { Form } from '../../form/definition'
import type { Finding } from '../finding'
import { type Check, finding } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'faint-look', severity: 'risk' } as const
const inLook = (accent: string): Form => ({ ...example(section('boat', [text('owner')])), look: { accent } })

export const faintLook: Check = {
  ...kind,
  about:
    'The accent of the look is hard to read on the page: its contrast with the ground is under 4.5 to 1 (WCAG 2.2).',
  raises: inLook('#8fd0c4'),
  spares: inLook('#14655a'),
  run: ({ form: { look } }): Finding[] => {
    const accent = look?.accent
    if (look === undefined || accent === undefined) return []
    const ground = look.tone ?? USUAL_GROUND
    const contrast = contrastOf(accent, ground)
    if (contrast >= LEAST_CONTRAST) return []
    const measured = Math.floor(contrast * 10) / 10
    const readable: Look = { ...look, accent: readableOn(accent, ground) }
    const sentence = `The accent ${accent} of the form’s look has a contrast of ${measured} to 1 with the page ${ground}; ${LEAST_CONTRAST} to 1 is read without effort.`
    return [
      finding(kind, null, sentence, {
        marked: { text: `${accent} on ${ground}`, from: 0, to: accent.length },
        mend: {
          words: `Take ${readable.accent}`,
          edits: [{ do: 'change', what: 'form', set: { look: readable } }],
        },
      }),
    ]
  },
}
