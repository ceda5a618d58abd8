import { namesIn } from '../../expressions/tree'
import { splitQuotes } from '../../form/quotes'
import { textsAt } from '../../form/texts'
import type { Form } from '../../form/definition'
import type { Plan } from '../../fill/planned'
import { accessViewOf, maySee } from '../../parties/access'
import { firstTurn } from '../../parties/turns'
import type { Finding } from '../finding'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text } from './exampleForms'

const kind = { code: 'standing-blank', severity: 'advice' } as const
const told = (quote: string): Form =>
  example(section('boat', [text('owner'), { kind: 'note', code: 'hello', text: `For ${quote}.` }]))

export const standingBlank: Check = {
  ...kind,
  about:
    'A text quotes a standing value that is blank there: the number or link of a response before it is sent first, a party or team in a form without turns.',
  raises: told('response {{ response.number }}'),
  spares: told('{{ workspace.name }}'),
  run: ({ form, model: { plan } }) => {
    const blank = blankAtFirst(form)
    const view = accessViewOf(form, plan.places, firstTurn(form))
    return plan.places
      .filter(place => maySee(view, place))
      .flatMap((place): Finding[] => {
        const names = standingIn(plan, place).filter(name => blank.has(name))
        return [...new Set(names)].map(name =>
          finding(kind, place, `${quotedName(place)} quotes “${name}”, ${blank.get(name)}`, {
            conflict: [partAt(place)],
          }),
        )
      })
  },
}

/** Why standing values are blank where a response is begun. */
function blankAtFirst(form: Form): ReadonlyMap<string, string> {
  const unsent = 'which a response has only when it was sent: it is blank there.'
  const turnless = 'but the form has no turns: it is always blank.'
  const always = form.turns ? [] : (['party', 'team'] as const)
  return new Map([['response', unsent], ...always.map((name): [string, string] => [name, turnless])])
}

/** The standing values that the texts of a place quote; a question of the same code goes before. */
const standingIn = (plan: Plan, place: Plan['places'][number]): string[] =>
  textsAt(place)
    .flatMap(found => splitQuotes(found.text))
    .flatMap(piece => {
      const expr = piece.kind === 'words' ? null : plan.names.readQuote(piece.source, place).expr
      return expr ? namesIn(expr) : []
    })
    .filter(name => !plan.names.placeOf(name))
