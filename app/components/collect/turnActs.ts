import type { BoardRow, TurnAct } from '#shared/api/board'

/** What whoever acts in somebody's stead can choose. */
export type ActKind = TurnAct['do']

interface ActWords {
  do: ActKind
  title: string
  /** What it does, said before it is done. */
  about: (row: BoardRow) => string
  /** The button that does it. */
  button: string
  asksReason: boolean
}

const nobody = (row: BoardRow) => (row.isByLink ? 'whoever has the link' : 'nobody yet')
/** Whom a turn waits for. */
export const waitsForWords = (row: BoardRow): string => (row.to.length > 0 ? row.to.join(', ') : nobody(row))

export const ACTS: readonly ActWords[] = [
  {
    do: 'take over',
    title: 'Take it over…',
    about: row =>
      `The turn “${row.name}” will wait for you instead of ${waitsForWords(row)}. Links to it stop working.`,
    button: 'Take it over',
    asksReason: true,
  },
  {
    do: 'reassign',
    title: 'Give it to somebody else…',
    about: row =>
      `The turn “${row.name}” now waits for ${waitsForWords(row)}. Links to it stop working, and whoever gets it is sent a letter.`,
    button: 'Give it to them',
    asksReason: true,
  },
  {
    do: 'remind',
    title: 'Remind…',
    about: row => `${waitsForWords(row)} will get a letter that “${row.name}” is still their turn.`,
    button: 'Remind them',
    asksReason: false,
  },
  {
    do: 'take back',
    title: 'Take it back to an earlier turn…',
    about: row => `What was filled in “${row.name}” so far is kept, and comes back when it is reached again.`,
    button: 'Take it back',
    asksReason: true,
  },
  {
    do: 'make link',
    title: 'Make a link to copy…',
    about: row => `Whoever has the link can take the turn “${row.name}”. It is shown this once.`,
    button: 'Make a link',
    asksReason: false,
  },
  {
    do: 'revoke links',
    title: 'Revoke all links…',
    about: row =>
      `No link that was sent out for “${row.name}” will open it any more. What was filled is kept.`,
    button: 'Revoke them',
    asksReason: false,
  },
  {
    do: 'withdraw',
    title: 'Withdraw the response…',
    about: row =>
      `Response ${row.number} stays to be read, and nobody can go on with it. This can’t be taken back.`,
    button: 'Withdraw it',
    asksReason: true,
  },
]

/** Which of them make sense for a turn. */
export const actsFor = (row: BoardRow): readonly ActWords[] =>
  ACTS.filter(({ do: act }) => {
    if (act === 'remind') return row.to.length > 0
    return act === 'take back' ? row.earlier.length > 0 : true
  })
