import { describe, expect, test } from 'vitest'
import type { Form, Item } from '../form/definition'
import { listStanding, standingQuotedIn, type Standing } from '../form/standing'
import { prove } from '../prove/prove'
import { describeFilled } from './describeResponse'
import { fill } from './fill'
import { planOf } from './plan'

const TODAY = '2026-11-29'
const STANDING: Standing = {
  release: { number: 3 },
  response: { number: 41, link: 'https://wherry.example/f/x', pay: '/pay/x' },
  party: { name: 'Owner' },
  team: { name: 'Yard office' },
  workspace: { name: 'Wherry Reach', address: '4 Slip Lane' },
}
const asked = (code: string, label: string, more: object = {}): Item => ({
  kind: 'question',
  type: 'text',
  code,
  label,
  ...more,
})
const formOf = (...items: Item[]): Form => ({
  tobbin: 2,
  code: 'raft',
  title: 'Raft race',
  sections: [{ code: 'one', title: 'One', items }],
})
const labelIn = (form: Form, answers: Record<string, string> = {}, standing: Standing = STANDING) =>
  describeFilled(fill(planOf(form), answers, TODAY, standing)).at(-1)?.label

describe('standing values', () => {
  test('are quoted as they are, and as nothing where they are not known', () => {
    const all = listStanding().map(({ source }) => `{{ ${source} }}`)
    const form = formOf(asked('name', all.join(' | ')))
    expect(labelIn(form)).toBe(
      'Raft race | raft | 3 | 41 | https://wherry.example/f/x | /pay/x | Owner | Yard office | Wherry Reach | 4 Slip Lane',
    )
    expect(labelIn(form, {}, {})).toBe('Raft race | raft |  |  |  |  |  |  |  | ')
    expect(standingQuotedIn(form, STANDING)).toEqual({ ...STANDING, form: {} })
    expect(standingQuotedIn(formOf(asked('name', '{{ workspace.name }}')), STANDING)).toEqual({
      workspace: STANDING.workspace,
    })
  })
  test('a question of the same code goes before them', () => {
    const form = formOf(asked('team', 'Team'), asked('name', 'Of {{ team }}'))
    expect(labelIn(form, { team: 'Mudlarks' })).toBe('Of Mudlarks')
    expect(prove(form, TODAY).findings.filter(f => f.severity === 'fault')).toEqual([])
  })
  test('no rule rests on them, and a quote names one of them', () => {
    const ruled = formOf(asked('name', 'Name', { shownWhen: 'workspace.name = "Wherry Reach"' }))
    expect(prove(ruled, TODAY).findings.map(f => f.code)).toContain('unknown-name')
    const bare = formOf(asked('name', 'At {{ workspace }}'))
    const [finding] = prove(bare, TODAY).findings.filter(f => f.code === 'quote-error')
    expect(finding?.sentence).toContain('write workspace.name or workspace.address')
  })
})
