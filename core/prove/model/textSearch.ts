import { LIMITS } from '../../form/limits'
import { isTooLarge } from './regularText'
import {
  after,
  automataOf,
  codesOf,
  formTold,
  lettersOf,
  startOf,
  type Front,
  type PieceTest,
  type TextForm,
} from './textAutomata'

/** How a test of a text is to turn out. */
export interface Wanted {
  test: PieceTest
  holds: boolean
}
/** So many texts are looked at, at most. */
const MOST_LOOKED_AT = 2_000

/**
 * A text in which tests turn out as wanted, searched with what lacks least in front (Hart, Nilsson and Raphael 1968, with an estimate that may
 * be too high): not always a shortest one.
 * @param avoided texts that it must not be
 * @returns null where none was found, which does not say that there is none
 */
export function findText(
  wanted: readonly Wanted[],
  avoided: readonly string[],
  form: TextForm,
): string | null {
  try {
    return search(wanted, avoided, form)
  } catch (error) {
    if (isTooLarge(error)) return null
    throw error
  }
}

function search(wanted: readonly Wanted[], avoided: readonly string[], form: TextForm): string | null {
  const tests = wanted.map(w => w.test)
  const automata = automataOf(tests, avoided, form.pattern)
  if (automata === null) return null
  const { asked, all } = automata
  const isForm = formTold(automata, form)
  const isSo = ({ states, length }: Front) =>
    asked.every((a, i) => a.holds(states[i] ?? 0, length) === (wanted[i]?.holds ?? false))
  const lacks = ({ states, length }: Front) =>
    wanted.reduce((sum, { test, holds }, i) => {
      const state = states[i] ?? 0
      if (!holds || (asked[i]?.holds(state, length) ?? false)) return sum
      // How far a pattern has come, or what is made of the text, is not told by its state.
      return (
        sum + (test.kind === 'matches' || test.through ? 1 : codesOf(test.piece).length - Math.max(0, state))
      )
    }, 0)
  const letters = lettersOf(all.flatMap(a => a.sets))
  const most = form.most ?? LIMITS.text
  const start = startOf(all)
  // Ends of a search by how much they lack.
  const waiting: Front[][] = [[]]
  const put = (at: Front) => (waiting[lacks(at)] ??= []).push(at)
  // A text that lacks as much as another is worth looking at when it is shorter, or not yet long enough.
  const shortest = new Map<string, number>()
  put(start)
  for (let looked = 0; looked < MOST_LOOKED_AT; looked++) {
    const at = waiting.find(w => w?.length)?.shift()
    if (!at) return null
    if (isForm(at) && isSo(at)) return at.text
    if (at.length >= most) continue
    for (const letter of letters) {
      const next = after(at, letter, all)
      const key = next.states.join()
      const isLost = wanted.some(
        ({ test, holds }, i) => test.kind === 'contains' && !holds && asked[i]?.holds(next.states[i] ?? 0, 0),
      )
      const known = shortest.get(key)
      const isNew = known === undefined || next.length < known || next.length <= form.least
      if (isLost || !isNew) continue
      shortest.set(key, Math.min(known ?? next.length, next.length))
      put(next)
    }
  }
  return null
}
