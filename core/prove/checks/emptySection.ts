import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'empty-section', severity: 'fault' } as const

export const emptySection: Check = {
  ...kind,
  about: 'A section or group has nothing in it; or the form has no section.',
  raises: example(section('boat', [text('name')]), section('cover', [])),
  spares: example(section('boat', [text('name')]), section('cover', [text('insurer')])),
  run: ({ model: { plan }, form }) => {
    if (form.sections.length === 0) return [finding(kind, null, 'The form has no section yet.')]
    return plan.places
      .filter(p => (p.kind === 'section' || p.kind === 'group') && p.node.items.length === 0)
      .map(p =>
        finding(kind, p, `${quotedName(p)} has nothing in it.`, {
          conflict: [partAt(p)],
          mend: { words: 'Take it out', edits: [{ do: 'remove', what: p.address }] },
        }),
      )
  },
}
