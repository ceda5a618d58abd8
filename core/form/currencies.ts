import type { QuestionOf } from './questions'

/** The currencies that an amount may be given in, the one that stands first chosen unless another is; one for most. */
export const currenciesOf = ({ currency, currencies }: QuestionOf<'money'>): readonly string[] =>
  currencies ? [currency, ...currencies.filter(c => c !== currency)] : [currency]

/** The member of an amount in rules that names its currency. */
export const CURRENCY_MEMBER = 'currency'
