import { leaderOf } from '../../form/alongside'
import type { Form } from '../../form/definition'
import type { Turn } from '../../form/turns'
import { turnName, turnNameOf, turnOf } from '../../parties/turns'
import type { Finding } from '../finding'
import { type Check, finding } from './check'

/** What is wrong with how turns that are to be open at once are written: where they stand, and where hand-offs lead. */
export function misplacedTurns(form: Form, kind: Pick<Check, 'code' | 'severity'>): Finding[] {
  const turns = form.turns ?? []
  const say = (at: number, sentence: string, words: string, mended: Turn) =>
    finding(kind, null, sentence, {
      turn: turns[at]?.code ?? null,
      mend: { words, edits: [{ do: 'change', what: 'form', set: { turns: turns.with(at, mended) } }] },
    })
  return turns.flatMap((turn, at): Finding[] => {
    const wrong = whyAlone(form, turn)
    const { alongside, ...alone } = turn
    if (wrong !== null) return [say(at, wrong, 'Open it alone', alone)]
    const found: Finding[] = []
    if (alongside !== undefined && turn.handOff !== undefined) {
      const { handOff: _, ...without } = turn
      const sentence = `“${turnName(form, turn)}” has hand-offs of its own, but those of “${turnNameOf(form, alongside)}”, with which it is open at once, hold for both.`
      found.push(say(at, sentence, 'Take them away', without))
    }
    return [...found, ...handedIntoTheMidst(form, turn, at, say)]
  })
}

/** Why a turn that is to be open at once with another can’t be; null where it is, or is not meant to be. */
function whyAlone(form: Form, turn: Turn): string | null {
  if (turn.alongside === undefined || leaderOf(form, turn) !== turn) return null
  const [name, leader] = [turnName(form, turn), turnNameOf(form, turn.alongside)]
  const begun = `“${name}” is to be open at once with “${leader}”`
  if (form.turns?.[0]?.code === turn.alongside)
    return `${begun}, with which a response begins: before that is sent, there is nothing to open.`
  return `${begun}, but it does not stand right after it.`
}

type Say = (at: number, sentence: string, words: string, mended: Turn) => Finding

/** The hand-offs of a turn that name one which is opened with another: they lead to both. */
function handedIntoTheMidst(form: Form, turn: Turn, at: number, say: Say): Finding[] {
  return (turn.handOff ?? []).flatMap((handOff, i): Finding[] => {
    const to = turnOf(form, handOff.to)
    const leader = to && leaderOf(form, to)
    if (!leader || leader === to) return []
    const sentence = `“${turnName(form, turn)}” hands on to “${turnName(form, to)}”, which is open at once with “${turnName(form, leader)}”: both are opened.`
    const handed = turn.handOff?.with(i, { ...handOff, to: leader.code })
    return [
      say(at, sentence, `Hand on to ${turnName(form, leader)}`, {
        ...turn,
        ...(handed && { handOff: handed }),
      }),
    ]
  })
}
