import { useLocalStorage } from '@vueuse/core'

/** How wide a frame is: the widths of the devices, in CSS pixels. */
export const FRAME_WIDTHS = { phone: 360, tablet: 640, desk: 900 } as const
export type FrameWidth = keyof typeof FRAME_WIDTHS
/** One frame of the rehearsal: whose turn it shows (null: all of the form), and how wide. */
export interface RehearsalFrame {
  as: string | null
  width: FrameWidth
}
/** So many stand side by side. */
export const MOST_FRAMES = 3

const isFrame = (f: unknown): f is RehearsalFrame =>
  typeof f === 'object' && f !== null && 'width' in f && String(f.width) in FRAME_WIDTHS

/** The frames side by side, kept for each form in this browser. */
export function useRehearsalFrames() {
  const draft = useDraft()
  const turns = computed(() => (draft.form?.turns ?? []).map(t => t.code))
  const kept = useLocalStorage<RehearsalFrame[]>(`tobbin-frames-${draft.id}`, [])
  const known = (as: string | null) => (as !== null && turns.value.includes(as) ? as : null)
  const usual = (): RehearsalFrame[] => {
    if (turns.value.length === 0)
      return [
        { as: null, width: 'phone' },
        { as: null, width: 'desk' },
      ]
    return turns.value.slice(0, 2).map(as => ({ as, width: 'tablet' }))
  }
  const frames = computed(() => {
    const wanted = Array.isArray(kept.value) ? kept.value.filter(isFrame) : []
    const shown = wanted.length > 0 ? wanted : usual()
    return shown.slice(0, MOST_FRAMES).map(f => ({ ...f, as: known(f.as) }))
  })
  const change = (at: number, set: Partial<RehearsalFrame>) =>
    (kept.value = frames.value.map((f, i) => (i === at ? { ...f, ...set } : f)))
  /** The party that no frame shows yet, else all of the form. */
  function add() {
    const shown = new Set(frames.value.map(f => f.as))
    const as = turns.value.find(t => !shown.has(t)) ?? null
    kept.value = [...frames.value, { as, width: 'phone' }]
  }
  const remove = (at: number) => (kept.value = frames.value.filter((_, i) => i !== at))
  return { frames, change, add, remove }
}
