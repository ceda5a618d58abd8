import { findUnseen, isOffered, placesTold } from '../../documents/seenBy'
import type { Form } from '../../form/definition'
import { isSignedIn, turnMadeAt, type FormDocument } from '../../form/documents'
import { maySee, accessViewOf, mayFill } from '../../parties/access'
import { turnName, turnOf } from '../../parties/turns'
import type { Turn } from '../../form/turns'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, quotedName } from './check'
import { documentPart, documentsOf, nameOf, quoteTag, withDocument } from './documentTags'

const UNSEEN = { code: 'document-unseen', severity: 'fault' } as const
const PARTY = { code: 'document-unknown-party', severity: 'fault' } as const
const LATER = { code: 'document-tag-later', severity: 'risk' } as const

/** A form of two turns with a document that quotes what only the second fills, for examples. */
const shared = (more: Partial<FormDocument>): Form => ({
  ...withDocument([quoteTag('tons')], more),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'ask', party: 'owner', by: 'link', access: { boat: 'fills', tons: 'never' } },
    { code: 'weigh', party: 'yard', by: 'link', access: { boat: 'reads', tons: 'fills' } },
  ],
})

export const documentUnseen: Check = {
  ...UNSEEN,
  about:
    'A document is offered to a party, or is to be signed by one, that never sees something which it quotes or asks: it would not get it.',
  raises: shared({ offered: ['owner'] }),
  spares: shared({ offered: ['yard'] }),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }) =>
      offeredTurns(inquiry, document).flatMap((turn): Finding[] => {
        const place = findUnseen(inquiry.model.plan, document, turn)
        if (!place) return []
        const whom = turn ? `the party of “${turnName(inquiry.form, turn)}”` : 'whoever answers'
        const how = isSignedIn(document, turn) ? 'signed by' : 'offered to'
        const sentence = `${nameOf(document)} is ${how} ${whom}, who never sees ${quotedName(place)}.`
        return [
          finding(UNSEEN, place, sentence, { conflict: [partAt(place), ...documentPart(inquiry, index)] }),
        ]
      }),
    ),
}

/** The turns that sign a document, or whose parties it is offered to; null: the one respondent of a form without turns. */
function offeredTurns({ form }: Inquiry, document: FormDocument): (Turn | null)[] {
  const turns = form.turns ?? []
  return (turns.length === 0 ? [null] : turns).filter(
    turn => isOffered(document, turn) || isSignedIn(document, turn),
  )
}

export const documentUnknownParty: Check = {
  ...PARTY,
  about: 'A document is offered to a party that the form does not have.',
  raises: shared({ offered: ['surveyor'] }),
  spares: shared({ offered: ['yard'] }),
  run: inquiry => {
    const known = new Set((inquiry.form.parties ?? []).map(p => p.code))
    return documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const offered = Array.isArray(document.offered) ? document.offered : []
      return offered
        .filter(code => !known.has(code))
        .map(code => {
          const sentence = `${nameOf(document)} is offered to the party “${code}”, which there is not.`
          return finding(PARTY, null, sentence, { conflict: documentPart(inquiry, index) })
        })
    })
  },
}

export const documentTagLater: Check = {
  ...LATER,
  about: 'A document quotes or asks what is answered only in turns after the one at which it is made.',
  raises: shared({ on: 'handedOn', turn: 'ask' }),
  spares: shared({ on: 'handedOn', turn: 'weigh' }),
  run: inquiry =>
    documentsOf(inquiry).flatMap(({ document, index }): Finding[] => {
      const madeAt = turnMadeAt(document)
      const turn = madeAt === undefined ? null : turnOf(inquiry.form, madeAt)
      if (!turn) return []
      return placesTold(inquiry.model.plan, document).flatMap((place): Finding[] => {
        const later = filledLater(inquiry, place, turn)
        if (!later) return []
        const sentence = `${nameOf(document)} tells ${quotedName(place)}, which is answered only in “${turnName(inquiry.form, later)}”, after the document is made.`
        return [
          finding(LATER, place, sentence, { conflict: [partAt(place), ...documentPart(inquiry, index)] }),
        ]
      })
    }),
}

/** The first turn that fills a place, where all that do come after another; null where one does before, or none. */
function filledLater({ form, model: { plan } }: Inquiry, place: Place, made: Turn): Turn | null {
  const turns = form.turns ?? []
  const filling = turns.filter(turn => {
    const view = accessViewOf(form, plan.places, turn)
    return maySee(view, place) && mayFill(view, place)
  })
  const [first] = filling
  return first && turns.indexOf(first) > turns.indexOf(made) ? first : null
}
