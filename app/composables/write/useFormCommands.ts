import { placeName } from '#core/form/walk'
import { useFillRest } from '~/composables/rehearse/useFillRest'
import type { Command } from '~/composables/commands'

/** What can be done with the form that is open, and each of its rows. */
export function useFormCommands(): () => readonly Command[] {
  const draft = useDraft()
  const rehearsal = useRehearsal()
  const fillRest = useFillRest()
  const to =
    (stage: string, query: Record<string, string> = {}) =>
    () =>
      void navigateTo({ path: `/forms/${draft.id}/${stage}`, query })
  const commands: readonly Command[] = [
    { words: 'Write: the script', hint: '', run: to('write') },
    { words: 'Write: the rulebook', hint: '', run: to('write', { view: 'rulebook' }) },
    { words: 'Write: the history', hint: '', run: to('write', { view: 'history' }) },
    { words: 'Rehearse', hint: '', run: to('rehearse') },
    { words: 'Prove', hint: '', run: to('prove') },
    { words: 'Release', hint: '', run: to('release') },
    { words: 'Collect', hint: '', run: to('collect') },
    { words: 'Undo', hint: 'Ctrl Z', run: () => draft.undo() },
    { words: 'Redo', hint: 'Ctrl Shift Z', run: () => draft.redo() },
    { words: 'Start the rehearsal afresh', hint: 'Alt N', run: () => rehearsal.startAfresh() },
    { words: 'Fill the rest of the rehearsal', hint: '', run: fillRest },
    { words: 'All forms', hint: '', run: () => void navigateTo('/') },
  ]
  const rows = computed((): Command[] =>
    draft.places.map(p => ({
      words: `${p.number} ${placeName(p)}`,
      hint: p.code,
      names: [p.number, p.code],
      run: () => {
        draft.select(p.address)
        to('write')()
      },
    })),
  )
  return () => [...commands, ...rows.value]
}
