import { membersIn, namesIn } from '../../expressions/tree'
import { splitQuotes } from '../../form/quotes'
import { textsAt } from '../../form/texts'
import type { Form } from '../../form/definition'
import type { Turn } from '../../form/turns'
import type { Place } from '../../form/walk'
import { accessViewOf, mayFill, maySee } from '../../parties/access'
import { turnName } from '../../parties/turns'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, text, whole } from './exampleForms'

const kind = { code: 'asks-unseen', severity: 'risk' } as const
const shared = (money: 'reads' | 'never'): Form => ({
  ...example(
    section('money', [whole('price')]),
    section('boat', [text('remark', { label: 'Is {{ price }} too much?', required: true })]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'yard', name: 'Yard' },
  ],
  turns: [
    { code: 'first', party: 'owner', by: 'link', access: { money: 'fills' } },
    { code: 'second', party: 'yard', by: 'link', access: { money, boat: 'fills' } },
  ],
})

export const unseenNames: Check = {
  ...kind,
  about:
    'A text or a check that a turn meets speaks of an answer that this turn never sees: the quote is blank for its reader, the check complains of something that can’t be looked up.',
  raises: shared('never'),
  spares: shared('reads'),
  run: inquiry =>
    (inquiry.form.turns ?? []).flatMap(turn => [
      ...quotesUnseen(inquiry, turn),
      ...checksUnseen(inquiry, turn),
    ]),
}

/** Texts of what a turn fills; where it only reads, a text is mostly meant for whoever fills. */
function quotesUnseen({ form, model: { plan } }: Inquiry, turn: Turn): Finding[] {
  const view = accessViewOf(form, plan.places, turn)
  const isMet = (place: Place) => (place.kind === 'question' ? mayFill(view, place) : maySee(view, place))
  return plan.places.filter(isMet).flatMap((place): Finding[] => {
    const names = textsAt(place)
      .flatMap(found => splitQuotes(found.text))
      .flatMap(piece => {
        const expr = piece.kind === 'words' ? null : plan.names.readQuote(piece.source, place).expr
        return expr ? [...namesIn(expr), ...membersIn(expr)] : []
      })
    return unseenAmong(names, plan, view).map(asked =>
      finding(
        kind,
        place,
        `${quotedName(place)} quotes ${quotedName(asked)}, which the turn “${turnName(form, turn)}” never sees: it is blank there.`,
        { conflict: [partAt(place), partAt(asked)] },
      ),
    )
  })
}

function checksUnseen({ form, model: { plan, rules } }: Inquiry, turn: Turn): Finding[] {
  const view = accessViewOf(form, plan.places, turn)
  return rules.flatMap((rule): Finding[] => {
    const isCheck = rule.kind === 'validWhen' || rule.kind === 'bound'
    if (!isCheck || !rule.expr || !mayFill(view, rule.place)) return []
    return unseenAmong([...namesIn(rule.expr), ...membersIn(rule.expr)], plan, view).map(asked =>
      finding(
        kind,
        rule.place,
        `A check of ${quotedName(rule.place)} asks for ${quotedName(asked)}, which the turn “${turnName(form, turn)}” never sees: whoever fills it can’t tell what is wrong.`,
        { rule: rule.id, conflict: [partAt(rule.place, rule.kind, rule.index), partAt(asked)] },
      ),
    )
  })
}

const unseenAmong = (
  names: readonly string[],
  plan: Inquiry['model']['plan'],
  view: ReturnType<typeof accessViewOf>,
): Place[] =>
  [...new Set(names)].flatMap(name => {
    const place = (plan.byCode.get(name) ?? plan.groups.get(name))?.place
    return place && !maySee(view, place) ? [place] : []
  })
