import type { Form } from './definition'
import type { HandOff, Turn } from './turns'

/**
 * Turns that are open at once: one leads, and those that directly follow it and say so are opened with it. The response waits for all of them;
 * the hand-offs are those of the one that leads. One after the other they come to the same, as long as none needs what another one fills.
 */

/** The turn that a turn is opened with; the turn itself where it leads, or is open alone. The first turn of a form leads none: before it there is no response. */
export function leaderOf({ turns = [] }: Form, turn: Turn): Turn {
  const at = turns.indexOf(turn)
  const from = turn.alongside === undefined ? -1 : turns.findIndex(t => t.code === turn.alongside)
  const leader = turns[from]
  if (!leader || from < 1 || leader.alongside !== undefined) return turn
  const isRun = from < at && turns.slice(from + 1, at).every(t => t.alongside === turn.alongside)
  return isRun ? leader : turn
}

/** The turns that are opened with a turn, the one that leads first; only the turn itself where it is open alone. */
export function openedWith(form: Form, turn: Turn): readonly Turn[] {
  const leader = leaderOf(form, turn)
  return (form.turns ?? []).filter(t => leaderOf(form, t) === leader)
}

/** Which turn’s hand-offs apply when a turn ends: those of the one that leads, when the last of them is handed on; null for one that others follow. */
export function handsOffFor(form: Form, turn: Turn): Turn | null {
  const together = openedWith(form, turn)
  return together.at(-1) === turn ? (together[0] ?? turn) : null
}

/** The hand-offs that apply when a turn ends. */
export const handOffsAfter = (form: Form, turn: Turn): readonly HandOff[] =>
  handsOffFor(form, turn)?.handOff ?? []

/** The turn that a turn could be opened with: the one before it, or the one with which that is opened; null where there is none before but the first. */
export function possibleLeader({ turns = [] }: Pick<Form, 'turns'>, at: number): Turn | null {
  const before = turns[at - 1]
  const leader = before && (turns.find(t => t.code === before.alongside) ?? before)
  return leader && leader !== turns[0] ? leader : null
}

/** The turns with one of them opened with those before it, or no longer: those that were opened with it go along. Its hand-offs go where those of another hold. */
export function withAlongside(form: Pick<Form, 'turns'>, at: number, isOpenedWith: boolean): Turn[] {
  const { turns = [] } = form
  const own = turns[at]
  const leader = possibleLeader(form, at)
  if (!own || (isOpenedWith && !leader)) return [...turns]
  const { alongside, handOff, ...bare } = own
  const led: Turn =
    isOpenedWith && leader ? { ...bare, alongside: leader.code } : { ...bare, ...(handOff && { handOff }) }
  return turns.map((turn, i): Turn => {
    if (i === at) return led
    const isFollowing =
      i > at && turn.alongside !== undefined && [own.code, alongside].includes(turn.alongside)
    return isFollowing ? { ...turn, alongside: led.alongside ?? own.code } : turn
  })
}

/** Turns of which one was moved or taken out: those that no longer stand after the turn that they were opened with are opened alone. */
export const withoutStray = (form: Form, turns: readonly Turn[]): Turn[] =>
  turns.map((turn): Turn => {
    const { alongside, ...alone } = turn
    return alongside !== undefined && leaderOf({ ...form, turns: [...turns] }, turn) === turn ? alone : turn
  })
