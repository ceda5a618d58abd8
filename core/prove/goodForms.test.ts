import { describe, expect, it } from 'vitest'
import { goodForms } from '../../tests/support/goodForms'
import { listPlaces } from '../form/walk'
import { prove } from './prove'

const TODAY = '2026-11-28'
const proved = goodForms().map(form => ({ form, findings: prove(form, TODAY).findings }))
const questionsIn = proved.map(({ form }) => listPlaces(form).filter(p => p.kind === 'question').length)

describe('forms of ten trades without a slip', () => {
  it('have forty questions or more each', () => {
    expect(questionsIn).toHaveLength(10)
    expect(Math.min(...questionsIn)).toBeGreaterThanOrEqual(40)
  })

  it('have no fault and no risk, and nothing undecided', () => {
    const wrong = proved.flatMap(p => p.findings.filter(f => f.severity !== 'advice'))
    expect(wrong.map(f => f.sentence)).toEqual([])
  })

  it('get advice at one question in a hundred at most', () => {
    const advice = proved.flatMap(p => p.findings)
    const questions = questionsIn.reduce((sum, n) => sum + n, 0)
    expect(advice.length).toBeLessThanOrEqual(questions / 100)
  })
})
