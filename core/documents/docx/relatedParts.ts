import { pathFrom } from './partPaths'
import { childOf, childrenOf, isElement, isNamed, readXml, W } from './docxTree'
import { textOf, type DocxFiles } from './openDocx'

/** The files that a part names, by the ids under which it does; what stands outside of the document is left out. */
export function readRelations(files: DocxFiles, part: string): Map<string, string> {
  const name = relationsOf(part)
  const text = textOf(files, name)
  const root = text === '' ? null : readXml(text, name).documentElement
  const found = (root ? childrenOf(root) : []).flatMap((node): [string, string][] => {
    if (!isElement(node) || node.localName !== 'Relationship') return []
    if (node.getAttribute('TargetMode') === 'External') return []
    return [[node.getAttribute('Id') ?? '', pathFrom(part, node.getAttribute('Target') ?? '')]]
  })
  return new Map(found)
}

/** The file that says which files a part names (ECMA-376, part 2). */
export const relationsOf = (part: string): string => part.replace(/([^/]*)$/, '_rels/$1.rels')

/** Which lists are numbered and which have bullets, by number and depth, `3/0`. */
export type ListKinds = ReadonlyMap<string, 'bullets' | 'numbers'>

const NUMBERING = 'word/numbering.xml'

/** Reads the kinds of lists of a document. */
export function readLists(files: DocxFiles): ListKinds {
  const text = textOf(files, NUMBERING)
  const root = text === '' ? null : readXml(text, NUMBERING).documentElement
  const all = root ? childrenOf(root).filter(isElement) : []
  const abstract = new Map(
    all.filter(n => isNamed(n, 'abstractNum')).map(n => [n.getAttributeNS(W, 'abstractNumId'), n]),
  )
  return new Map(
    all
      .filter(n => isNamed(n, 'num'))
      .flatMap((num): [string, 'bullets' | 'numbers'][] => {
        const id = num.getAttributeNS(W, 'numId') ?? ''
        const kind = abstract.get(childOf(num, 'abstractNumId')?.getAttributeNS(W, 'val') ?? '')
        const levels = kind ? childrenOf(kind).filter(n => isNamed(n, 'lvl')) : []
        return levels.filter(isElement).map(level => {
          const format = childOf(level, 'numFmt')?.getAttributeNS(W, 'val')
          return [
            `${id}/${level.getAttributeNS(W, 'ilvl') ?? '0'}`,
            format === 'bullet' ? 'bullets' : 'numbers',
          ]
        })
      }),
  )
}
