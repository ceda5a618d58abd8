import { seededRandom } from '../../core/fill/draw'
import type { Form, Item } from '../../core/form/definition'
import { Access, type Turn } from '../../core/form/turns'
import { richForm } from './richForms'

/** A rich form with two parties and random access; some questions are kept for the office or the owner. */
export function sharedForm(s: number): Form {
  const form = richForm(s)
  const next = seededRandom(s + 1)
  const access = (): Access => Access.options[Math.floor(next() * 3)] ?? 'never'
  const kept = (item: Item): Item => {
    if (item.kind !== 'question') return item
    if (next() < 0.1) return { ...item, officeOnly: true }
    return next() < 0.1 ? { ...item, privateTo: 'owner' } : item
  }
  const sections = form.sections.map(section => ({ ...section, items: section.items.map(kept) }))
  const inEntries = sections.flatMap(x => x.items).flatMap(codesInEntries)
  const turn = (code: string, party: string): Turn => ({
    code,
    party,
    by: 'link',
    access: Object.fromEntries([
      ...sections.map(x => [x.code, access()]),
      ...(next() < 0.5 ? [[sections[0]?.items[0]?.code ?? '', access()]] : []),
      ...inEntries.flatMap(inside => (next() < 0.2 ? [[inside, access()]] : [])),
    ]),
  })
  return {
    ...form,
    sections,
    parties: [
      { code: 'owner', name: 'Owner' },
      { code: 'yard', name: 'Yard', office: true },
    ],
    turns: [turn('request', 'owner'), turn('estimate', 'yard')],
  }
}

/** The codes of what stands in repeating groups, at any depth. */
function codesInEntries(item: Item): string[] {
  if (item.kind !== 'group') return []
  return item.items.flatMap(inner => [inner.code, ...codesInEntries(inner)])
}
