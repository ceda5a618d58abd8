import { openedWith, possibleLeader, withAlongside, withoutStray } from '#core/form/alongside'
import { codeOfTurn } from '#core/form/turnCodes'
import { DONE, type Access, type Actor, type HandOff, type Turn } from '#core/form/turns'
import { turnName } from '#core/parties/turns'

/** How an e-mail address looks. */
export const ADDRESS = /^[^@\s]+@[^@\s]+\.[^@\s]+$/

/** The turns of the draft, and what changes them. */
export function useTurns() {
  const draft = useDraft()
  const { user } = useUserSession()
  const turns = computed(() => draft.form?.turns ?? [])
  const parties = computed(() => draft.form?.parties ?? [])
  const sections = computed(() => draft.form?.sections ?? [])
  /** Until somebody else is named, a turn waits for whoever sets it up. */
  const me = (): Actor => ({ team: [user.value?.email ?? 'nobody@wherry.example'] })
  const put = (next: readonly Turn[], merge: string | null = null) =>
    draft.edit([{ do: 'change', what: 'form', set: { turns: next.length > 0 ? next : null } }], merge)
  const change = (at: number, part: Partial<Turn>, merge: string | null = null) =>
    put(
      turns.value.map((t, i) => (i === at ? { ...t, ...part } : t)),
      merge,
    )
  const nameOf = (turn: Turn) => (draft.form ? turnName(draft.form, turn) : turn.code)

  /** A turn for the first party that has none; the first fills everything, others read it. */
  function add(): boolean {
    const free = parties.value.find(p => !turns.value.some(t => t.party === p.code)) ?? parties.value[0]
    if (!free) return false
    const first = turns.value.length === 0
    const access: Access = first ? 'fills' : 'reads'
    return put([
      ...turns.value,
      {
        code: codeOfTurn(
          free.name,
          turns.value.map(t => t.code),
        ),
        party: free.code,
        by: first ? 'link' : me(),
        access: Object.fromEntries(sections.value.map(s => [s.code, access])),
      },
    ])
  }
  /** Whom a turn waits for when somebody chooses the kind. */
  function actorOf(kind: string): Actor {
    if (kind === 'link') return 'link'
    if (kind.startsWith('people:')) return { people: kind.slice('people:'.length) }
    return kind.startsWith('answer:') ? { answer: kind.slice('answer:'.length) } : me()
  }
  return { turns, parties, sections, put, change, nameOf, add, actorOf }
}

/** Where the turns of the draft stand, one after the other or opened at once, and where they lead. */
export function useTurnOrder({ turns, put, nameOf }: ReturnType<typeof useTurns>) {
  const draft = useDraft()
  /** Puts turns of which one was moved or taken out. */
  const arrange = (next: readonly Turn[]) => draft.form !== null && put(withoutStray(draft.form, next))
  /** Opens a turn with those before it, or alone again. */
  const setAlongside = (at: number, isOpenedWith: boolean) =>
    draft.form !== null && put(withAlongside(draft.form, at, isOpenedWith))
  /** The turn that a turn could be opened with, or is. */
  const leaderFor = (at: number): Turn | null => draft.form && possibleLeader(draft.form, at)
  /** The turn that follows one, past all that are open at once with it. */
  function followerOf(at: number): Turn | null {
    const own = turns.value[at]
    const together = own && draft.form ? openedWith(draft.form, own) : []
    return turns.value[at + Math.max(1, together.length)] ?? null
  }
  /** Where a turn hands off to when it has no rules of its own. */
  function followerName(at: number): string {
    const next = followerOf(at)
    return next ? nameOf(next) : 'done'
  }
  const putHandOffs = (at: number, next: readonly HandOff[]) =>
    put(
      turns.value.map((t, i): Turn => {
        if (i !== at) return t
        const { handOff: _, ...rest } = t
        return next.length > 0 ? { ...rest, handOff: [...next] } : rest
      }),
    )
  const addHandOff = (at: number) =>
    putHandOffs(at, [...(turns.value[at]?.handOff ?? []), { to: followerOf(at)?.code ?? DONE }])
  return { arrange, setAlongside, leaderFor, followerName, putHandOffs, addHandOff }
}

/** Whom a turn waits for, as one word: a link, addresses, a team, or an answer. */
export function actorKind(by: Actor): string {
  if (by === 'link') return 'link'
  if ('people' in by) return `people:${by.people}`
  return 'answer' in by ? `answer:${by.answer}` : 'team'
}
/** The addresses of those who act, as one line; empty where they are not named by addresses. */
export function addressLine(by: Actor): string {
  if (by === 'link') return ''
  if ('person' in by) return by.person
  return 'team' in by ? by.team.join(', ') : ''
}
/** Whether several are named, of whom each could have a response after the other. */
export const isSeveral = (by: Actor): by is Extract<Actor, { rotate?: true }> =>
  typeof by === 'object' && ('people' in by || 'team' in by)
/** Who acts, with one after the other or whoever comes first. */
export function withRotation(by: Actor, rotates: boolean): Actor {
  if (!isSeveral(by)) return by
  const { rotate: _, ...rest } = by
  return rotates ? { ...rest, rotate: true } : rest
}
/** Addresses from one line, or what is wrong with them. */
export function readAddresses(text: string): Actor | string {
  const list = text.split(/[\s,;]+/).filter(Boolean)
  const [first] = list
  if (first === undefined) return 'Somebody has to act: write an address.'
  const bad = list.find(a => !ADDRESS.test(a))
  if (bad !== undefined) return `“${bad}” is no e-mail address.`
  return list.length === 1 ? { person: first } : { team: list }
}
