import type { Form } from '../../form/definition'
import type { Access } from '../../form/turns'
import { groupsLeftToRead } from '../../parties/access'
import { turnName } from '../../parties/turns'
import { type Check, quotedName, finding, partAt } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'entries-only-read', severity: 'risk' } as const

const boats = (fee: Access): Form => ({
  ...example(
    section('fleet', [
      { kind: 'group', code: 'boats', title: 'Boats', repeat: {}, items: [text('name'), text('fee')] },
    ]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'request', party: 'owner', by: 'link', access: { fleet: 'fills' } },
    { code: 'estimate', party: 'yard', by: 'link', access: { fleet: 'fills', fee } },
  ],
})

export const entriesOnlyRead: Check = {
  ...kind,
  about:
    'A turn is to fill a repeating group, but not something in it. Entries are filled whole or not at all, so the turn only reads them.',
  raises: boats('never'),
  spares: boats('fills'),
  run: ({ form, model: { plan } }) =>
    (form.turns ?? []).flatMap(turn =>
      groupsLeftToRead(form, plan.places, turn).map(([group, kept]) =>
        finding(
          kind,
          group,
          `The turn “${turnName(form, turn)}” only reads the entries of ${quotedName(group)}, since it does not fill ${quotedName(kept)} in them: entries are filled whole or not at all.`,
          { turn: turn.code, conflict: [partAt(group), partAt(kept)] },
        ),
      ),
    ),
}
