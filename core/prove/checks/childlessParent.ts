import { GOOD_ROWS, rowCheck } from './rows'

export const childlessParent = rowCheck({
  code: 'childless-parent',
  severity: 'risk',
  about:
    'A row has nothing below it in the list that is narrowed by it: whoever chooses it is offered nothing next.',
  raises: GOOD_ROWS.slice(0, 1),
})
