import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CHECKS } from './checks'
import { example, section, text, whole } from './checks/exampleForms'
import { applyEdits } from '../form/edits'
import { planOf } from '../fill/plan'
import { Inquiry } from './goals/inquiry'
import { findingsOf } from './checks/check'
import { Memory } from './goals/memory'
import { prove } from './prove'
import { fill, type Filled } from '../fill/fill'
import { isNeverInPlay } from './checks/neverInPlay'
import type { Form } from '../form/definition'
import { listPlaces, nodeText, type Place } from '../form/walk'
import { condition, smallForm } from '../../tests/support/forms'
import { RUNS, states, TODAY } from '../../tests/support/states'

describe('every check', () => {
  for (const check of CHECKS) {
    it(`${check.code} speaks of its example and not of the other`, () => {
      const found = prove(check.raises, TODAY).findings.filter(f => f.code === check.code)
      expect(found).not.toEqual([])
      // There is always something to look at beside it.
      for (const { conflict, marked, turn, inList } of found)
        expect([conflict.length > 0, marked, turn, inList]).not.toEqual([false, null, null, null])
      expect(prove(check.spares, TODAY).findings).toEqual([])
      const memory = new Memory()
      prove(check.raises, TODAY, memory)
      expect(prove(check.spares, TODAY, memory).findings, 'after the other').toEqual([])
    })
  }
})

/** What an edit of some kind sets in a place. */
function changeOf(place: Place, kind: number, rule: string, words: string): Record<string, unknown> {
  if (kind < 2) return { shownWhen: kind === 0 ? null : rule }
  if (kind === 2 && 'required' in place.node) return { required: null }
  if (kind === 3 && place.kind === 'section') return { routes: null }
  return { [nodeText(place.node).key]: words }
}

/** What is said of which rule; of several smallest conflicts any may be found, and what can't show is folded by them: that is compared by place. */
const told = (form: Form, memory?: Memory) => {
  const inquiry = new Inquiry(form, TODAY, memory)
  const findings = CHECKS.flatMap(check => findingsOf(check, inquiry)).filter(
    f => !['contradicts-outer', 'never-shown', 'unreachable-section'].includes(f.code),
  )
  return {
    impossible: inquiry.model.plan.places.filter(p => isNeverInPlay(inquiry, p.order)).map(p => p.address),
    findings: findings
      .map(
        f =>
          `${f.code.replace('shadowed-route', 'never-taken')} ${f.address} ${f.rule} ${f.witness ? Object.keys(f.witness).length : ''}`,
      )
      .sort(),
  }
}

describe('a proof', () => {
  it('after edits a proof that remembers the last one says the same as one from nothing', () => {
    fc.assert(
      fc.property(
        smallForm,
        fc.array(fc.tuple(fc.nat(), condition([{ code: 'q0', kind: 'yesNo' }], 1), fc.nat(5)), {
          minLength: 1,
          maxLength: 4,
        }),
        (start, edits) => {
          const memory = new Memory()
          let form = start
          told(form, memory)
          for (const [at, rule, kind] of edits) {
            const places = listPlaces(form).filter(p => p.kind !== 'group')
            const place = places[at % places.length]!
            const first = form.sections[0]?.items[0]?.code ?? 'q0'
            const set = changeOf(place, kind, rule.replaceAll('q0', first), `Words ${at}`)
            form = applyEdits(form, [{ do: 'change', what: place.address, set }]).form
            expect(told(form, memory)).toEqual(told(form))
          }
        },
      ),
      { numRuns: Math.ceil(RUNS / 5) },
    )
  })
})

describe('what a finding rests on', () => {
  const told = (h: { max: number }) =>
    prove(example(section('a', [whole('h', h), text('high', { shownWhen: 'h > 500' })])), TODAY).findings

  it('are limits as well, where without them answers would do it', () => {
    expect(told({ max: 400 }).map(f => f.conflict.map(p => `${p.code} ${p.kind}`))).toEqual([
      ['high shownWhen', 'h limits'],
    ])
    expect(told({ max: 600 })).toEqual([])
  })

  it('is mended where a closing is mistyped', () => {
    const boat = section('boat', [text('owner')], { routes: [{ to: 'finish', closing: 'thank' }] })
    const form = { ...example(boat), closings: [{ code: 'thanks', text: 'Thank you.' }] }
    const [found] = prove(form, TODAY).findings
    expect(prove(applyEdits(form, found?.mend?.edits ?? []).form, TODAY).findings).toEqual([])
  })
})

describe('against brute force', () => {
  it('without a part that changes nothing, the same is in play in every state', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const found = prove(form, TODAY).findings.filter(f => f.code === 'redundant-part' && f.mend)
        const inquiry = new Inquiry(form, TODAY)
        for (const { mend } of found) {
          const mended = planOf(applyEdits(form, mend?.edits ?? []).form)
          for (const { section, state, answers } of states(form, inquiry)) {
            const other = fill(mended, answers, TODAY)
            const until = (s: Filled) =>
              s.plan.places
                .filter(p => p.section <= section)
                .map(p => [
                  p.code,
                  s.inPlay[p.order] === true,
                  s.required[s.plan.byCode.get(p.code)?.slot ?? -1] === true,
                ])
            expect(until(other)).toEqual(until(state))
          }
        }
      }),
      { numRuns: Math.ceil(RUNS / 30) },
    )
  })

  it('a conflict is irreducible: without any one of its rules the thing can show', () => {
    fc.assert(
      fc.property(smallForm, form => {
        for (const finding of prove(form, TODAY).findings.filter(f => f.code === 'never-shown')) {
          const inquiry = new Inquiry(form, TODAY)
          const own = inquiry.model.plan.places.find(p => p.address === finding.address)
          const rule = finding.conflict.find(c => c.address === finding.address && c.kind === 'shownWhen')
          if (!own || !rule || finding.conflict.length < 2) continue
          // Lifting the thing's own rule must make it possible, since that rule is part of a smallest conflict: unless a skip
          // passes over it as well.
          const lifted = JSON.parse(
            JSON.stringify(form, (_, v) =>
              v?.code === own.code && !(own.kind === 'section') === 'kind' in v
                ? { ...v, shownWhen: undefined }
                : v,
            ),
          ) as Form
          const left = prove(lifted, TODAY).findings.find(
            f => f.code === 'never-shown' && f.at === finding.at,
          )
          expect(left?.conflict.some(c => c.kind === 'skip') ?? true).toBe(true)
        }
      }),
      { numRuns: Math.ceil(RUNS / 5) },
    )
  })
})
