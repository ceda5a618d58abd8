import { ChoiceUses, type ChoiceAt } from '#core/form/choiceUses'
import type { Form } from '#core/form/definition'
import { listNames } from '#core/form/listNames'
import { placeName } from '#core/form/walk'

/** Who still says the codes of choices, in a sentence; empty where nobody does. */
export function sayChoiceUses(form: Form, at: ChoiceAt, codes: readonly string[]): string {
  const uses = codes.flatMap(code => new ChoiceUses(form, at, code).words())
  const named = [...new Set(uses.map(u => `“${placeName(u.place)}” (${u.words})`))]
  return named.length === 0 ? '' : `Still used by ${listNames(named)}.`
}
