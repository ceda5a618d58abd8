import type { Ref } from 'vue'
import type { ResponseTable } from '#shared/api/responses'

/** Pixels of a column that stays in sight. */
const PINNED = 150

/** The columns of the table: what is known of each response, then the questions that were chosen, in their order. */
export function useShownColumns(data: Ref<ResponseTable | null | undefined>) {
  const collect = useCollect()
  const headers = computed(() => {
    const labels = new Map(data.value?.columns.map(c => [c.code, c.label]))
    const codes = collect.columns?.filter(code => labels.has(code)) ?? [...labels.keys()]
    const hasTrays = (collect.workbench?.trays.length ?? 0) > 0
    const facts = [
      { title: 'No.', key: 'number' },
      { title: 'Sent', key: 'sentAt' },
      { title: 'Version', key: 'release' },
      ...(data.value?.hasTurns ? [{ title: 'Turn', key: 'turn' }] : []),
      ...(hasTrays ? [{ title: 'Tray', key: 'tray' }] : []),
    ]
    const asked = codes.map((code, i) => ({
      title: labels.get(code) ?? code,
      key: `cells.${code}`,
      ...(i < collect.pinned ? { fixed: true, width: PINNED, minWidth: `${PINNED}px` } : {}),
    }))
    const stuck = asked.slice(0, collect.pinned)
    return [...stuck, ...facts, ...asked.slice(stuck.length)]
  })
  return { headers }
}
