import { expect, it } from 'vitest'
import { TODAY } from '../../tests/support/states'
import { withDocument } from './checks/documentTags'
import { prove } from './prove'

const faultsOf = (fileName: string) =>
  prove(withDocument([], { fileName }), TODAY)
    .findings.filter(f => f.severity === 'fault')
    .map(f => f.sentence)

it('what the name of a document’s file quotes is looked at as well, and how', () => {
  expect(faultsOf('Order {{ name | upper case }}')).toEqual([])
  expect(faultsOf('Order {{ nme }}')).toEqual([
    expect.stringContaining('The document “Works order” in its file’s name quotes “nme”'),
  ])
  expect(faultsOf('Order {{ name | uper case }}')).toEqual([expect.stringContaining('“uper case”')])
  expect(faultsOf('{{ tons | in words }}')).toEqual([expect.stringContaining('only templates of documents')])
})
