import { GOOD_ROWS, rowCheck } from './rows'

export const duplicateRow = rowCheck({
  code: 'duplicate-row',
  severity: 'fault',
  about: 'A list has two rows with one code; which of them an answer means can’t be told.',
  raises: [...GOOD_ROWS, { code: 'osier', label: 'Osier Upper', coast: 'east' }],
})
