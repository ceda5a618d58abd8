import type { ChoiceList } from '#core/form/choiceLists'
import type { Form } from '#core/form/definition'
import { optionsOf } from '#core/form/rows'
import type { Turn } from '#core/form/turns'
import { typeBrief } from '#core/form/types'
import { nodeText, type Place } from '#core/form/walk'
import { turnName } from '#core/parties/turns'

/** So many names are told; of more there is a count. */
const MOST_NAMES = 6
function few(names: readonly string[]): string {
  const more = names.length - MOST_NAMES
  const told = names.slice(0, MOST_NAMES).join(', ')
  return more > 0 ? `${told} and ${more} more` : told
}

/** What something of a form is, in a line: a note’s text, what a question offers, what a group holds. */
export function placeWords(form: Form, { node }: Place): string {
  if ('items' in node)
    return node.items.length === 0
      ? 'Nothing in it'
      : `Holds ${few(node.items.map(item => nodeText(item).text))}`
  // A note goes by its text already.
  if (node.kind === 'note') return ''
  const options = node.type === 'choice' || node.type === 'choices' ? (optionsOf(form, node) ?? []) : []
  const brief = typeBrief(node, form)
  return options.length === 0 ? brief : `${brief}: ${few(options.map(o => o.label))}`
}

/** Who acts in a turn and where it hands off to, in a line. */
export function turnWords(form: Form, turn: Turn): string {
  const next = (turn.handOff ?? []).map(h => {
    const target = form.turns?.find(t => t.code === h.to)
    return `to ${target ? turnName(form, target) : h.to}${h.when === undefined ? '' : ` when ${h.when}`}`
  })
  const party = form.parties?.find(p => p.code === turn.party)?.name ?? turn.party
  return next.length === 0
    ? `${party} acts; the next turn follows`
    : `${party} acts; hands off ${next.join(', ')}`
}

/** A row of a list as it stands there: its number, and its cells. */
export interface ToldRow {
  number: number
  cells: string[]
}

/** The rows of a list that a finding speaks of. */
export const toldRows = (list: ChoiceList, columns: readonly string[], rows: readonly number[]): ToldRow[] =>
  rows.flatMap(at => {
    const row = list.rows[at]
    return row ? [{ number: at + 1, cells: columns.map(c => String(row[c] ?? '')) }] : []
  })
