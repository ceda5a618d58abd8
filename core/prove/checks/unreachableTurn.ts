import type { Form } from '../../form/definition'
import { DONE, type Turn } from '../../form/turns'
import { turnName } from '../../parties/turns'
import { handOffsAfter, openedWith } from '../../form/alongside'
import type { Finding } from '../finding'
import { type Check, finding } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'unreachable-turn', severity: 'fault' } as const
const turned = (to: string): Form => ({
  ...example(section('boat', [text('name')])),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' }, handOff: [{ to }] },
    { code: 'survey', party: 'yard', by: 'link', access: { boat: 'reads' } },
    { code: 'estimate', party: 'yard', by: 'link', access: { boat: 'reads' } },
  ],
})

export const unreachableTurn: Check = {
  ...kind,
  about: 'No hand-off leads to a turn, whatever is answered.',
  raises: turned('estimate'),
  spares: turned('survey'),
  run: ({ form }) => {
    const turns = form.turns ?? []
    const reached = new Set<number>()
    const open = turns.length > 0 ? [0] : []
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      const turn = turns[at]
      if (reached.has(at) || !turn) continue
      reached.add(at)
      // The first hand-off without condition hides those below it, and the turn that follows.
      const rules = handOffsAfter(form, turn)
      const end = rules.findIndex(h => h.when === undefined)
      for (const { to } of end < 0 ? rules : rules.slice(0, end + 1))
        if (to !== DONE) open.push(...turns.flatMap((t, i) => (isOpenedBy(form, t, to) ? [i] : [])))
      if (end < 0) open.push(at + 1)
    }
    return turns.flatMap((turn, i): Finding[] =>
      reached.has(i)
        ? []
        : [
            finding(
              kind,
              null,
              `Nothing leads to the turn “${turnName(form, turn)}”: no hand-off goes there.`,
              { turn: turn.code },
            ),
          ],
    )
  },
}

/** Whether a hand-off to a turn opens another one: itself, or one that is open at once with it. */
const isOpenedBy = (form: Form, turn: Turn, to: string): boolean =>
  openedWith(form, turn).some(t => t.code === to)
