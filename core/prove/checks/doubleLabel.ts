import { GOOD_ROWS, rowCheck } from './rows'

export const doubleLabel = rowCheck({
  code: 'double-label',
  severity: 'risk',
  about: 'Two rows under one parent have the same label, so respondents can’t tell them apart.',
  raises: [...GOOD_ROWS, { code: 'osier_2', label: 'Osier creek', coast: 'east' }],
})
