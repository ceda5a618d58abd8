import { clipOf, duplicateEdits, pasteEdits, readClip, type Clip } from '#core/form/clipboard'
import { newItem, newSection, type LineKind } from '#core/form/create'
import type { Form, Item } from '#core/form/definition'
import type { Edit } from '#core/form/edits'
import type { Address, Place } from '#core/form/walk'
import { useChosen } from './useChosen'

/** A star behind a question says that it is required, as in a paste. */
function typedItem(
  form: Form,
  kind: Exclude<LineKind, 'section'>,
  line: string,
  codes: readonly string[],
): Item {
  const isStarred = /\S\s*\*$/.test(line)
  const node = newItem(form, kind, isStarred ? line.replace(/\s*\*+$/, '') : line, codes)
  if (node.kind !== 'question' || !isStarred || node.type === 'value' || node.type === 'hidden') return node
  return { ...node, required: true }
}

/** Rows that come into the script: typed, pasted, doubled. */
export function useScriptClipboard() {
  const draft = useDraft()
  const notices = useScriptNotices()
  const { placeAt, chosen, spotBelow, selectAll } = useChosen()
  /** Inserts typed lines below a row; gives the address of the last. */
  function addLines(lines: readonly string[], kind: LineKind, below: Place | null): Address | null {
    const { form } = draft
    if (!form) return null
    const codes: string[] = []
    const isSection = kind === 'section' || !below
    const edits = lines.map((line, i): Edit => {
      if (kind === 'section' || !below)
        return {
          do: 'insert',
          into: 'sections',
          at: (below ? below.section + 1 : form.sections.length) + i,
          node: newSection(form, line),
        }
      const spot = spotBelow(below)
      const node = typedItem(form, kind, line, codes)
      codes.push(node.code)
      return { do: 'insert', into: spot.into, at: spot.at + i, node }
    })
    if (!draft.edit(edits)) return null
    const last = edits[edits.length - 1]
    return last?.do === 'insert' ? `${isSection ? 'section' : 'item'}/${last.node.code}` : null
  }
  function copy(): string | null {
    const clip = draft.form && clipOf(draft.form, draft.places, chosen())
    return clip ? JSON.stringify(clip) : null
  }

  function pasteClip(clip: Clip) {
    const { form } = draft
    const below = placeAt(draft.selection.at(-1) ?? draft.selected) ?? draft.places.at(-1)
    if (!form || !below) return
    const made = pasteEdits(form, clip, spotBelow(below), below.section + 1)
    if (!draft.edit(made.edits)) return
    notices.notes = made.notes
    selectAll(made.addresses)
  }
  const paste = (text: string): boolean => {
    const clip = readClip(text)
    if (clip) pasteClip(clip)
    return clip !== null
  }

  function duplicate() {
    if (!draft.form) return
    const made = duplicateEdits(draft.form, draft.places, chosen())
    if (draft.edit(made.edits)) selectAll(made.addresses)
  }
  return { addLines, copy, paste, pasteClip, duplicate }
}
