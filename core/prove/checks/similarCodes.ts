import { GOOD_ROWS, rowCheck } from './rows'

export const similarCodes = rowCheck({
  code: 'similar-codes',
  severity: 'risk',
  about: 'Codes of a list differ only by case or blanks.',
  raises: [...GOOD_ROWS, { code: 'Osier', label: 'Osier Upper', coast: 'east' }],
})
