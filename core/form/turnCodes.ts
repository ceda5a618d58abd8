import { codeFromLabel, freeCode } from './codes'
import type { Form } from './definition'
import type { Edit } from './edits'
import { DONE } from './turns'

/** What a turn is called where nothing better is known. */
const TURN = 'turn'

/** A code for a new turn of a party. */
export const codeOfTurn = (party: string, taken: Iterable<string>): string =>
  freeCode(codeFromLabel(party, TURN), new Set([...taken, DONE]))

type Naming = Pick<Form, 'turns' | 'walks' | 'deliveries' | 'documents'>

/** The parts of a form that name turns, with one turn called otherwise: hand-offs, walks, and what is done when it is handed on follow. */
function withTurnCode(form: Form, from: string, to: string): Naming {
  const key = (code: string) => (code === from ? to : code)
  const turns = form.turns?.map(turn => {
    const handOff = turn.handOff?.map(h => ({ ...h, to: key(h.to) }))
    const alongside = turn.alongside === undefined ? {} : { alongside: key(turn.alongside) }
    return { ...turn, ...alongside, code: key(turn.code), ...(handOff ? { handOff } : {}) }
  })
  const walks = form.walks?.map(walk =>
    walk.expect.turns ? { ...walk, expect: { ...walk.expect, turns: walk.expect.turns.map(key) } } : walk,
  )
  const deliveries = form.deliveries?.map(d => ({
    ...d,
    ...(d.turn === undefined ? {} : { turn: key(d.turn) }),
  }))
  const documents = form.documents?.map(d => ({
    ...d,
    ...(d.turn === undefined ? {} : { turn: key(d.turn) }),
    ...(d.signedBy === undefined ? {} : { signedBy: d.signedBy.map(key) }),
  }))
  return {
    ...(turns ? { turns } : {}),
    ...(walks ? { walks } : {}),
    ...(deliveries ? { deliveries } : {}),
    ...(documents ? { documents } : {}),
  }
}

/** The edits that give a turn another code; none where the code is taken, or there is no such turn. */
export function renameTurnEdits(form: Form, from: string, to: string): Edit[] {
  const codes = new Set(form.turns?.map(t => t.code))
  if (from === to || to === DONE || !codes.has(from) || codes.has(to)) return []
  return [{ do: 'change', what: 'form', set: withTurnCode(form, from, to) }]
}

/**
 * The edits that call a party otherwise. `follows`: the codes of its turns that were made of its name follow it; one that was set stays.
 * @param party the code of the party
 */
export function renamePartyEdits(form: Form, party: string, name: string, follows: boolean): Edit[] {
  const before = form.parties?.find(p => p.code === party)
  if (!before) return []
  const parties = form.parties?.map(p => (p.code === party ? { ...p, name } : p))
  let named: Form = { ...form, parties }
  const old = codeFromLabel(before.name, TURN)
  const isMadeOf = (code: string) => code === old || /^_\d+$/.test(code.slice(old.length))
  const own = form.turns?.filter(t => t.party === party && t.code.startsWith(old) && isMadeOf(t.code)) ?? []
  for (const { code } of follows ? own : []) {
    const others = named.turns?.flatMap(t => (t.code === code ? [] : [t.code])) ?? []
    named = { ...named, ...withTurnCode(named, code, codeOfTurn(name, others)) }
  }
  const { turns, walks, deliveries, documents } = named
  const set = {
    parties,
    ...(turns ? { turns } : {}),
    ...(walks ? { walks } : {}),
    ...(deliveries ? { deliveries } : {}),
    ...(documents ? { documents } : {}),
  }
  return [{ do: 'change', what: 'form', set }]
}
