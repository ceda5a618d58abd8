import fc from 'fast-check'
import { expect, it } from 'vitest'
import { askedOf, smallForm } from '../../tests/support/forms'
import { RUNS, states, TODAY } from '../../tests/support/states'
import { allProblems } from '../fill/fill'
import { quotedText } from '../fill/quote'
import type { Form } from '../form/definition'
import type { DocumentTag } from '../form/documents'
import { standpointAtEnd } from '../form/scope'
import { CHECKS } from './checks'
import { findingsOf } from './checks/check'
import { Inquiry } from './goals/inquiry'

/** A form with a document that tells a number in figures and one in words behind it. */
function withSum(form: Form, figures: string, format: 'money' | null, inWords: string): Form {
  const words = `{{ ${figures}${format === null ? '' : ` | ${format}`} }} ({{ ${inWords} | in words }})`
  const tags: DocumentTag[] = [
    { is: 'quote', source: figures, format, words },
    { is: 'quote', source: inWords, format: 'in words', words },
  ]
  const template = { file: '00000000-0000-4000-8000-000000000000', name: 'letter.docx', bytes: 1, tags }
  return {
    ...form,
    documents: [{ code: 'letter', title: 'Letter', on: 'done', fileName: 'Letter', template }],
  }
}

/** A number of a form, or one that is worked out of it. */
const numberOf = (form: Form): fc.Arbitrary<string> => {
  const codes = askedOf(form).flatMap(({ code, kind }) => (kind === 'integer' ? [code] : []))
  const made = ['', ' * 1.004', ' / 3', ' + 0.004', ' * 2'].flatMap(more =>
    codes.map(code => `${code}${more}`),
  )
  return fc.constantFrom(...(made.length > 0 ? made : ['1']))
}
/** What is told, as a number: `2.00` is `2`. */
const asNumber = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text)

it('a number in words that can differ from its figures: as all answers show that are tried', () => {
  const forms = smallForm.chain(form =>
    fc.tuple(fc.constant(form), numberOf(form), fc.constantFrom('money' as const, null), numberOf(form)),
  )
  fc.assert(
    fc.property(forms, ([bare, figures, format, inWords]) => {
      const inquiry = new Inquiry(withSum(bare, figures, format, inWords), TODAY)
      const { plan } = inquiry.model
      const tell = (state: Parameters<typeof quotedText>[0], source: string, as: string | null) =>
        asNumber(
          quotedText(state, `{{ ${source}${as === null ? '' : ` | ${as}`} }}`, standpointAtEnd(plan.form)),
        )
      let differs = false
      for (const { state, section } of states(plan.form, inquiry)) {
        if (section !== state.path.at(-1) || allProblems(state).length > 0) continue
        differs ||= tell(state, figures, format) !== tell(state, inWords, null)
      }
      const found = CHECKS.flatMap(check => findingsOf(check, inquiry)).map(f => f.code)
      const isSaid = found.includes('document-words-differ')
      // What is not decided is said to be so: that is no answer, and a wrong one must never be given.
      if (found.includes('undecided')) expect(isSaid && !differs).toBe(false)
      else expect(isSaid).toBe(differs)
    }),
    { numRuns: Math.ceil(RUNS / 10) },
  )
})
