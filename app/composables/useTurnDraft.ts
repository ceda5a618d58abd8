import type { Answers } from '#core/form/answers'
import type { RespondentPage, TurnDraft, TurnToKeep } from '#shared/api/answering'
import { callLink } from '~/api/callLink'

/**
 * What is typed in a later turn, kept on the server so that it can be gone on with elsewhere. `state`: whether it is kept there, or somebody
 * else has typed there meanwhile.
 */
export function useTurnDraft(token: string, page: RespondentPage | null, seat: string) {
  const isTurn = page?.turn != null && !page.turn.isFirst && page.turn.handedOffAt === null
  /** When the draft was kept that this page goes on from; null for none. */
  const base = ref(page?.turn?.draft?.at ?? null)
  const state = ref<'none' | 'kept' | 'others'>(base.value === null ? 'none' : 'kept')
  /** Who has typed elsewhere, as far as it is known. */
  const others = ref(page?.turn?.draft?.by ?? '')
  const settling = useSettling()

  const draft = (key: string, answers: Answers): TurnToKeep => ({ seat, base: base.value, key, answers })
  /** What tells later which state of the server's what this device has goes on from. */
  const mark = () => ({ base: base.value, seat })
  /** When it was kept from another page than this device's, and nothing is here; null where that is not so. */
  const begunElsewhere = ref<string | null>(null)
  /** Finds out whether somebody has typed elsewhere: at all, or since this device kept what it has. */
  function compare(found: { base: string | null; seat: string | null } | null) {
    if (found === null) begunElsewhere.value = base.value
    else if (isTurn && !isGoneOnWith(page?.turn?.draft ?? null, found)) state.value = 'others'
  }
  async function save({ key, answers }: { key: string; answers: Answers }) {
    if (state.value === 'others') return
    try {
      const { at } = await callLink('keepTurn', { params: { token }, body: draft(key, answers) })
      base.value = at
      state.value = 'kept'
    } catch (cause) {
      // Out of reach, or not open any more: it stays on this device, which the page says.
      state.value = refusalOf(cause).code === 'kept-by-others' ? 'others' : 'none'
      if (state.value === 'others') others.value = await whoTyped(token)
    }
  }
  /** Keeps what was typed, once nothing more comes. `kept`: called when that is done. */
  function typed(current: () => { key: string; answers: Answers }, kept: () => void) {
    if (!isTurn) return
    settling.later(() => save(current()), kept)
  }
  /** Goes on with what stands on this page, in place of what somebody else has typed. */
  async function takeOver(key: string, answers: Answers) {
    const now = await callLink('openLink', { params: { token } })
    base.value = now.turn?.draft?.at ?? null
    state.value = 'none'
    await save({ key, answers })
  }
  /** That a sending or giving back was refused because of what somebody else has typed. */
  function refused(code: string | undefined) {
    if (code === 'kept-by-others') state.value = 'others'
  }
  const about = { isTurn, state, begunElsewhere, others, draft, mark }
  return { ...about, compare, typed, takeOver, stop: settling.stop, refused }
}

/** Who has typed in a turn last; nobody is named where that is not known, or can't be asked. */
async function whoTyped(token: string): Promise<string> {
  try {
    const now = await callLink('openLink', { params: { token } })
    return now.turn?.draft?.by ?? ''
  } catch {
    return ''
  }
}

/** Whether what a device has goes on from the draft that the server has, or is where that draft was typed. */
const isGoneOnWith = (
  draft: TurnDraft | null,
  { base, seat }: { base: string | null; seat: string | null },
) => base === (draft?.at ?? null) || (seat !== null && draft?.seat === seat)
