import { NEVER_IN_PLAY, isNeverInPlay, isFolded } from './neverInPlay'
import { namesIn } from '../../expressions/tree'
import { splitQuotes } from '../../form/quotes'
import { textsAt } from '../../form/texts'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import { type Check, quotedName, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, section, text } from './exampleForms'

const kind = { code: 'quote-may-be-blank', severity: 'advice' } as const
const greeting = (required: true | undefined) =>
  example(
    section('owner', [text('name', { required })]),
    section('boat', [
      { kind: 'note', code: 'hello', text: 'Now for your boat, {{ name }}.' },
      text('boat_name'),
    ]),
  )

export const quoteBlank: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: 'A text quotes an earlier section’s answer that may be blank there.',
  raises: greeting(undefined),
  spares: greeting(true),
  run: inquiry =>
    lookAtEach(
      inquiry.model.plan.sections.flatMap(s => s.all),
      (step): Finding[] => {
        const { place } = step
        if (isNeverInPlay(inquiry, place.order) || isFolded(inquiry, step)) return []
        const quoted = textsAt(place)
          .filter(found => !found.entry)
          .flatMap(found => splitQuotes(found.text))
          .flatMap(piece => {
            const expr =
              piece.kind === 'words' ? null : inquiry.model.plan.names.readQuote(piece.source, place).expr
            return expr?.kind === 'name' ? namesIn(expr) : []
          })
        return [...new Set(quoted)].flatMap((name): Finding[] => {
          const asked = inquiry.model.stepOf(name)
          if (
            !asked ||
            asked.place.section >= place.section ||
            asked.place.entryOf !== null ||
            asked.value !== null
          )
            return []
          const goal: Goal = {
            key: `quote:${place.address}:${name}`,
            at: place,
            section: place.section,
            names: [name, ...namesAround(inquiry.model, step)],
            literals: space => [space.inPlay(step), space.encoding.variable(name).blank],
            holds: state => state.inPlay[place.order] === true && (state.values[asked.slot] ?? null) === null,
          }
          // An advice is given with its example only.
          const witness =
            inquiry.decide(goal, { aside: true }).is === 'possible' ? inquiry.witness(goal) : null
          return witness === null
            ? []
            : [
                finding(
                  kind,
                  place,
                  `${quotedName(place)} quotes ${quotedName(asked.place)}, which may be blank there.`,
                  { conflict: [partAt(place), partAt(asked.place)], witness },
                ),
              ]
        })
      },
    ),
}
