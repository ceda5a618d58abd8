import type { Plan } from '../../fill/planned'
import type { Form } from '../../form/definition'
import type { Edit } from '../../form/edits'
import { DONE, type Turn } from '../../form/turns'
import { peopleListOf } from '../../parties/actors'
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
    'A turn or a private question names a party that the form does not have; or a turn names a section, question or next turn that does not exist, or an answer that is neither an e-mail address nor a person.',
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
    const byQuestions = plan.questions.flatMap(({ place }) => {
      const missing = nameMissing(place.node.privateTo, parties, 'party')
      if (!missing) return []
      const { end, near } = missing
      const edits: Edit[] = near ? [{ do: 'change', what: place.address, set: { privateTo: near } }] : []
      const mend = near ? { words: `Write ${near}`, edits } : null
      return [
        finding(kind, place, `${quotedName(place)} is private to ${end}`, {
          conflict: [partAt(place)],
          mend,
        }),
      ]
    })
    return [...wrongInTurns(form, plan), ...byQuestions]
  },
}

/** A name that nothing has: how a sentence about it ends, and the one that it may stand for. */
function nameMissing(name: string | undefined, known: readonly string[], what: string) {
  if (name === undefined || known.includes(name)) return null
  const near = nearest(name, known)
  return {
    near,
    end: `“${name}”, which is no ${what} of this form.${near ? ` Did you mean “${near}”?` : ''}`,
  }
}

function wrongInTurns(form: Form, plan: Plan): Finding[] {
  const parties = (form.parties ?? []).map(p => p.code)
  const next = [...(form.turns ?? []).map(t => t.code), DONE]
  const codes = plan.places.map(p => p.code)
  return (form.turns ?? []).flatMap((turn, at): Finding[] => {
    const say = (end: string, mended: Turn | null, near = '') => {
      const turns = mended && form.turns?.with(at, mended)
      return finding(kind, null, `The turn “${turn.title || turn.code}” ${end}`, {
        turn: turn.code,
        mend: turns && { words: `Write ${near}`, edits: [{ do: 'change', what: 'form', set: { turns } }] },
      })
    }
    const about = (
      name: string,
      known: readonly string[],
      words: readonly [string, string],
      mended: (near: string) => Turn | null,
    ) => {
      const missing = nameMissing(name, known, words[1])
      if (!missing) return []
      const { near, end } = missing
      return [say(`${words[0]} ${end}`, near === null ? null : mended(near), near ?? '')]
    }
    const access = Object.entries(turn.access)
    return [
      ...about(turn.party, parties, ['is taken by', 'party'], party => ({ ...turn, party })),
      ...access.flatMap(([code]) =>
        about(code, codes, ['names', 'section or question'], near => withAccessAs(turn, code, near)),
      ),
      ...(turn.handOff ?? []).flatMap((hand, i) =>
        about(hand.to, next, ['hands off to', 'turn'], to => ({
          ...turn,
          handOff: turn.handOff?.with(i, { ...hand, to }),
        })),
      ),
      ...asksNobody(turn, plan).map(end => say(end, null)),
    ]
  })
}

/** A turn that says of another section or question what it said of one; null where it speaks of that already. */
function withAccessAs(turn: Turn, code: string, near: string): Turn | null {
  if (turn.access[near]) return null
  const access = Object.entries(turn.access).map(([c, does]) => [c === code ? near : c, does])
  return { ...turn, access: Object.fromEntries(access) }
}

/** Whether a turn waits for whoever an answer names that is neither an e-mail address nor a person. */
function asksNobody({ by }: Turn, plan: Plan): string[] {
  if (typeof by !== 'object' || !('answer' in by)) return []
  const node = plan.byCode.get(by.answer)?.place.node
  if (node && (node.type === 'email' || peopleListOf(plan.form, node) !== null)) return []
  return [
    `waits for whoever “${by.answer}” names, which is neither an e-mail question nor a choice of a person.`,
  ]
}
