import { ChoiceUses, type ChoiceAt } from '#core/form/choiceUses'
import type { Form } from '#core/form/definition'
import { placeName } from '#core/form/walk'

/** So many uses are told by name. */
const MOST_NAMED = 3

/** Who still says the codes of choices, in a sentence; empty where nobody does. */
export function sayChoiceUses(form: Form, at: ChoiceAt, codes: readonly string[]): string {
  const uses = codes.flatMap(code => new ChoiceUses(form, at, code).words())
  const named = [...new Set(uses.map(u => `“${placeName(u.place)}” (${u.words})`))]
  if (named.length === 0) return ''
  const more = named.length - MOST_NAMED
  const shown = more > 0 ? [...named.slice(0, MOST_NAMED), `${more} more`] : named
  return `Still used by ${new Intl.ListFormat('en').format(shown)}.`
}
