import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { allProblems, fill, problemsIn, type Filled } from '../fill/fill'
import type { Answers } from '../fill/answers'
import type { Form } from '../form/definition'
import { ANSWERS, askedOf, condition, smallForm } from '../../tests/support/forms'
import { CHECKS } from './checks'
import { neverShown } from './checks/neverShown'
import { promiseBroken } from './checks/promiseBroken'
import { unreachableSection } from './checks/unreachableSection'
import { Inquiry } from './inquiry'
import { prove } from './prove'

const TODAY = '2026-11-24'
const RUNS = Number(process.env.PROVE_FORMS ?? 1500)

/** Every state of a form, by the definition: all answers tried, everything before the current section complete. */
function* states(form: Form, inquiry: Inquiry): Generator<{ section: number, state: Filled, answers: Answers }> {
  const asked = askedOf(form)
  function* combine(i: number, answers: Record<string, string | number | boolean>): Generator<Answers> {
    const next = asked[i]
    if (!next) return yield { ...answers }
    yield* combine(i + 1, answers)
    for (const answer of ANSWERS[next.kind]) yield* combine(i + 1, { ...answers, [next.code]: answer })
  }
  const { plan } = inquiry.model
  for (const answers of combine(0, {})) {
    const state = fill(plan, answers, TODAY)
    for (const section of state.path) {
      yield { section, state, answers }
      const planned = plan.sections[section]
      if (planned && problemsIn(state, planned).length > 0) break
    }
  }
}

describe('every check', () => {
  for (const check of CHECKS) {
    it(`${check.code} speaks of its example and not of the other`, () => {
      expect(prove(check.raises, TODAY).findings.map(f => f.code)).toContain(check.code)
      expect(prove(check.spares, TODAY).findings).toEqual([])
    })
  }
})

describe('against brute force', () => {
  it('never shown, unreachable: the same verdict on random forms, and smallest witnesses', () => {
    fc.assert(fc.property(smallForm, (form) => {
      const inquiry = new Inquiry(form, TODAY)
      const findings = [...unreachableSection.run(inquiry), ...neverShown.run(inquiry)]
      const { plan } = inquiry.model
      const seen = new Set<number>()
      const least = new Map<number, number>()
      for (const { section, state } of states(form, inquiry)) {
        const count = plan.questions.filter(q => q.place.section <= section && state.values[q.slot] !== null).length
        least.set(section, Math.min(least.get(section) ?? 99, count))
        for (const place of plan.places) if (place.section === section && state.inPlay[place.order]) seen.add(place.order)
      }
      for (const place of plan.places) {
        const impossible = inquiry.impossible.has(place.order) || inquiry.impossible.has(inquiry.orderOfSection(place.section)) || place.groups.some(g => inquiry.impossible.has(g.order))
        expect({ code: place.code, shown: !impossible }).toEqual({ code: place.code, shown: seen.has(place.order) })
      }
      expect(findings.filter(f => f.code === 'undecided')).toEqual([])
      plan.sections.forEach((_, i) => {
        const witness = inquiry.wayTo(i)
        expect(witness === null ? undefined : Object.keys(witness).length).toBe(least.get(i))
      })
    }), { numRuns: RUNS })
  })

  it('always shown: the same verdict on random forms', () => {
    fc.assert(fc.property(smallForm, (form) => {
      const inquiry = new Inquiry(form, TODAY)
      const findings = prove(form, TODAY).findings
      const { plan } = inquiry.model
      const always = new Set(plan.places.filter(p => p.kind !== 'section' && p.node.shownWhen !== undefined).map(p => p.order))
      const shown = new Set<number>()
      for (const { section, state } of states(form, inquiry)) {
        const planned = plan.sections[section]
        if (!planned) continue
        for (const step of planned.all) if (state.inPlay[step.place.order]) shown.add(step.place.order)
        if (problemsIn(state, planned).some(p => p.kind === 'missing')) continue
        for (const step of planned.all) if (step.shown?.run(state.values) !== true) always.delete(step.place.order)
      }
      const said = findings.filter(f => f.code === 'always-shown' && f.address?.startsWith('item/')).map(f => f.at)
      const expected = plan.places.filter(p => always.has(p.order) && shown.has(p.order)).map(p => p.code)
      expect(said.sort()).toEqual(expected.sort())
    }), { numRuns: Math.ceil(RUNS / 2) })
  })

  it('promises: broken just when some complete response breaks them, and the witness is a smallest one', () => {
    fc.assert(fc.property(smallForm.chain(form => condition(askedOf(form)).map(holds => ({ ...form, promises: [{ code: 'p', text: 'P', holds }] }))), (form) => {
      const inquiry = new Inquiry(form, TODAY)
      const { plan } = inquiry.model
      const holds = plan.promises[0]
      let least: number | undefined
      for (const { state } of states(form, inquiry)) {
        if (allProblems(state).length > 0 || holds?.run(state.values) === true) continue
        const count = plan.questions.filter(q => state.values[q.slot] !== null).length
        least = Math.min(least ?? count, count)
      }
      const [found, ...more] = promiseBroken.run(inquiry)
      expect(more).toEqual([])
      expect(found?.code).toBe(least === undefined ? undefined : 'promise-broken')
      if (found) expect(Object.keys(found.witness ?? {}).length).toBe(least)
    }), { numRuns: Math.ceil(RUNS / 3) })
  })

  it('a conflict is irreducible: without any one of its rules the thing can show', () => {
    fc.assert(fc.property(smallForm, (form) => {
      for (const finding of prove(form, TODAY).findings.filter(f => f.code === 'never-shown')) {
        const inquiry = new Inquiry(form, TODAY)
        const own = inquiry.model.plan.places.find(p => p.address === finding.address)
        const rule = finding.conflict.find(c => c.address === finding.address && c.kind === 'shownWhen')
        if (!own || !rule || finding.conflict.length < 2) continue
        // Lifting the thing's own rule must make it possible, since that rule is part of a smallest conflict.
        const lifted = JSON.parse(JSON.stringify(form, (_, v) => v?.code === own.code && !(own.kind === 'section') === ('kind' in v) ? { ...v, shownWhen: undefined } : v)) as Form
        expect(prove(lifted, TODAY).findings.some(f => f.code === 'never-shown' && f.at === finding.at)).toBe(false)
      }
    }), { numRuns: Math.ceil(RUNS / 5) })
  })
})
