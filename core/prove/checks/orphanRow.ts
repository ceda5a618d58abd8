import { GOOD_ROWS, rowCheck } from './rows'

export const orphanRow = rowCheck({
  code: 'orphan-row',
  severity: 'risk',
  about: 'A row belongs to a parent that does not exist, so it is never offered.',
  raises: [...GOOD_ROWS, { code: 'gannet', label: 'Gannet Sound', coast: 'isles' }],
})
