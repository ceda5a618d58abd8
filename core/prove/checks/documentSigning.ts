import type { Form } from '../../form/definition'
import type { FormDocument } from '../../form/documents'
import { openedWith } from '../../form/alongside'
import type { Turn } from '../../form/turns'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { askedGoal, neverReached } from './askedAtEnd'
import { type Check, finding } from './check'
import { documentPart, documentsOf, nameOf, withDocument } from './documentTags'

const UNSIGNED = { code: 'document-unsigned', severity: 'fault' } as const
const ORDER = { code: 'document-signers-order', severity: 'fault' } as const
const NEVER = { code: 'document-signer-never', severity: 'risk' } as const

/** A form of an owner and a yard, which weighs boats of more than so many tons only, with a document that is signed, for examples. */
const signed = (signedBy: string[] | undefined, over: number): Form => {
  const turns: Turn[] = [
    {
      ...{ code: 'ask', party: 'owner', by: 'link' },
      access: { boat: 'fills' },
      handOff: [{ when: `tons > ${over}`, to: 'weigh' }, { to: 'done' }],
    },
    { code: 'weigh', party: 'yard', by: 'link', access: { boat: 'reads' } },
  ]
  const parties = [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ]
  const more = signedBy === undefined ? {} : { signedBy }
  return { ...withDocument([], { on: 'signed', ...more }), parties, turns }
}

export const documentUnsigned: Check = {
  ...UNSIGNED,
  about: 'A document is made when it is signed, and no turn signs it.',
  raises: signed(undefined, 10),
  spares: signed(['ask'], 10),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const isOfTurns = (inquiry.form.turns ?? []).length > 0
      if (document.on !== 'signed' || !isOfTurns || document.signedBy !== undefined) return []
      const sentence = `${nameOf(document)} is made when it is signed, and nobody signs it: say in which turns.`
      return [finding(UNSIGNED, null, sentence, { conflict: documentPart(inquiry, index) })]
    }),
}

export const documentSignersOrder: Check = {
  ...ORDER,
  about:
    'A document is to be signed in a turn that comes before the one which makes it, or is open at once with it: there is nothing to sign there yet.',
  raises: signed(['weigh', 'ask'], 10),
  spares: signed(['ask', 'weigh'], 10),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const { form } = inquiry
      const turns = form.turns ?? []
      const [first, ...others] = (document.signedBy ?? []).map(code => turns.find(t => t.code === code))
      if (document.on !== 'signed' || !first) return []
      const beside = openedWith(form, first)
      const early = others.filter(
        turn => turn && (beside.includes(turn) || turns.indexOf(turn) < turns.indexOf(first)),
      )
      return early.flatMap(turn => {
        if (!turn) return []
        const sentence = `${nameOf(document)} is to be signed in “${turnName(form, turn)}”, and is made only in “${turnName(form, first)}”.`
        return [finding(ORDER, null, sentence, { conflict: documentPart(inquiry, index) })]
      })
    }),
}

export const documentSignerNever: Check = {
  ...NEVER,
  about: 'A turn is to sign a document and is never reached where there is one to sign.',
  raises: signed(['ask', 'weigh'], 40),
  spares: signed(['ask', 'weigh'], 10),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }) =>
      signersOf(inquiry, document).flatMap(({ code, turn }) => {
        const name = `“${turnName(inquiry.form, turn)}”`
        return neverReached(inquiry, signerGoal(inquiry, { document, index, code }), {
          ...{ kind: NEVER, own: documentPart(inquiry, index) },
          sentence: `${nameOf(document)} is to be signed in ${name}, which is never handed on where it is made.`,
          question: `whether ${nameOf(document)} is ever signed in ${name}`,
        })
      }),
    ),
}

/** The turns that sign a document and of which nothing else says whether they are reached: where it has a condition, the first makes it. */
function signersOf({ form }: Inquiry, { on, signedBy = [], when }: FormDocument) {
  if (on !== 'signed') return []
  return signedBy.flatMap((code, i) => {
    const turn = form.turns?.find(t => t.code === code)
    return turn && (i > 0 || when === undefined) ? [{ code, turn }] : []
  })
}

function signerGoal(
  inquiry: Inquiry,
  { document, index, code }: { document: FormDocument; index: number; code: string },
) {
  const { model } = inquiry
  const rule = model.rules.find(r => r.kind === 'document' && r.index === index) ?? null
  const turn = model.turns.findIndex(t => t.turn.code === code)
  return askedGoal(inquiry, { key: `signer:${index}:${code}`, when: document.when, rule, turn }, true)
}
