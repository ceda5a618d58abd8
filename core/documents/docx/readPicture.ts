import type { Element, Node } from '@xmldom/xmldom'
import type { PictureRun } from '../content'
import { childrenOf, isElement } from './docxTree'
import type { DocxFiles } from './openDocx'

/** English metric units of a point (ECMA-376, part 1, section 20.1). */
export const EMU = 12_700
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
}
/** Points that a picture is wide and high at most, where it says nothing sensible. */
const LARGEST = 1_500

/** The picture of a drawing, of a kind that is shown everywhere; null for none. */
export function pictureIn(
  drawing: Element,
  files: DocxFiles,
  relations: ReadonlyMap<string, string>,
): PictureRun | null {
  const named = find(drawing, 'blip')
  const embedded = named ? Array.from(named.attributes).find(a => a.localName === 'embed')?.value : undefined
  const part = relations.get(embedded ?? '') ?? ''
  const bytes = files[part]
  const type = TYPES[part.split('.').at(-1)?.toLowerCase() ?? '']
  const extent = find(drawing, 'extent')
  if (!bytes || type === undefined || !extent) return null
  const [width, height] = [pointsOf(extent, 'cx'), pointsOf(extent, 'cy')]
  return width === null || height === null ? null : { is: 'picture', type, bytes, width, height }
}

function pointsOf(extent: Element, name: string): number | null {
  const points = Number(extent.getAttribute(name)) / EMU
  return points > 0 && points < LARGEST ? points : null
}

/** The first element of a name inside of another. */
function find(node: Node, name: string): Element | null {
  for (const child of childrenOf(node)) {
    if (isElement(child) && child.localName === name) return child
    const inside = find(child, name)
    if (inside) return inside
  }
  return null
}
