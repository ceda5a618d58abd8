import type { Step } from '#core/fill/planned'

/** How a group lays out what stands in it: side by side in so many columns, where there is room. */
export const besideEachOther = (columns: number | undefined) =>
  columns === undefined ? { class: 'one-by-one' } : { class: ['side-by-side', `beside-${columns}`] }

/** How something stands in its group: over so many columns, and as a follow-up a step to the right. */
export function laidOut({ place }: Step) {
  if (place.kind === 'section') return {}
  const { span, indent } = { span: undefined, indent: undefined, ...place.node }
  const columns = place.groups.at(-1)?.node.columns
  const isWide = span !== undefined && columns !== undefined
  return {
    class: { spans: isWide, indented: indent === true },
    style: isWide ? { '--span': String(Math.min(span, columns)) } : {},
  }
}
