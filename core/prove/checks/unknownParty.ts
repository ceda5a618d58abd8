import type { Form } from '../../form/definition'
import { DONE } from '../../form/turns'
import { nearest } from '../../expressions/near'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'unknown-party', severity: 'fault' } as const
const shared = (more: Partial<Form>): Form => ({
  ...example(section('boat', [text('name')])),
  parties: [{ code: 'owner', name: 'Owner' }],
  turns: [{ code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' } }],
  ...more,
})

export const unknownParty: Check = {
  ...kind,
  about:
    'A turn or a private question names a party that the form does not have; or a turn names a section, question or next turn that does not exist, or an answer that is no e-mail address.',
  raises: shared({
    turns: [
      {
        code: 'request',
        party: 'owner',
        by: 'link',
        access: { boat: 'fills' },
        handOff: [{ to: 'estimate' }],
      },
    ],
  }),
  spares: shared({
    turns: [
      { code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' }, handOff: [{ to: DONE }] },
    ],
  }),
  run: ({ form, model: { plan } }) => {
    const parties = (form.parties ?? []).map(p => p.code)
    const turns = [...(form.turns ?? []).map(t => t.code), DONE]
    const codes = plan.places.map(p => p.code)
    const missing = (name: string, known: readonly string[], what: string) => {
      if (known.includes(name)) return []
      const near = nearest(name, known)
      return [`“${name}”, which is no ${what} of this form.${near ? ` Did you mean “${near}”?` : ''}`]
    }
    const byTurns = (form.turns ?? []).flatMap((turn): Finding[] =>
      [
        ...missing(turn.party, parties, 'party').map(end => `is taken by ${end}`),
        ...Object.keys(turn.access)
          .flatMap(code => missing(code, codes, 'section or question'))
          .map(end => `names ${end}`),
        ...(turn.handOff ?? []).flatMap(h => missing(h.to, turns, 'turn')).map(end => `hands off to ${end}`),
        ...(typeof turn.by === 'object' &&
        'answer' in turn.by &&
        plan.byCode.get(turn.by.answer)?.place.node.type !== 'email'
          ? [`waits for whoever “${turn.by.answer}” names, which is no e-mail question.`]
          : []),
      ].map(end => finding(kind, null, `The turn “${turn.title || turn.code}” ${end}`, { turn: turn.code })),
    )
    const byQuestions = plan.questions.flatMap(({ place }) =>
      place.node.privateTo === undefined
        ? []
        : missing(place.node.privateTo, parties, 'party').map(end =>
            finding(kind, place, `${quotedName(place)} is private to ${end}`, { conflict: [partAt(place)] }),
          ),
    )
    return [...byTurns, ...byQuestions]
  },
}
