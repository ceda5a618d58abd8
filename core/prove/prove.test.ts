import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { allProblems, fill, offeredNow, problemsIn, type Filled } from '../fill/fill'
import type { Answers } from '../fill/answers'
import type { Form, Item } from '../form/definition'
import { ANSWERS, askedOf, condition, smallForm } from '../../tests/support/forms'
import { CHECKS } from './checks'
import { deadEnd } from './checks/deadEnd'
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
  function* combine(i: number, answers: Record<string, string | number | boolean | readonly string[]>): Generator<Answers> {
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
        const count = plan.questions.filter(q => q.place.section <= section && q.value === null && state.values[q.slot] !== null).length
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
        const count = plan.questions.filter(q => q.value === null && state.values[q.slot] !== null).length
        least = Math.min(least ?? count, count)
      }
      const [found, ...more] = promiseBroken.run(inquiry)
      expect(more).toEqual([])
      expect(found?.code).toBe(least === undefined ? undefined : 'promise-broken')
      if (found) expect(Object.keys(found.witness ?? {}).length).toBe(least)
    }), { numRuns: Math.ceil(RUNS / 3) })
  })

  it('cascades: never shown and dead ends, the same verdict on random lists narrowed by one another', () => {
    const codes = ['a', 'b', 'c']
    const leaf = fc.constantFrom('p = "a"', 'p != null', 'h in ["h0", "h3"]', 'h = "h1"', 'h.row.depth > 1', 'h.row.depth < n', 'n >= 2', 'list contains(m, "b")')
    const cascade = fc.record({
      rows: fc.array(fc.record({ parent: fc.constantFrom(...codes, 'z'), depth: fc.integer({ min: 0, max: 2 }) }), { minLength: 4, maxLength: 5 }),
      narrowedBy: fc.constantFrom('row.parent = p', 'list contains(m, row.parent)', 'row.parent = p and row.depth >= n', 'row.depth < n'),
      required: fc.constantFrom(undefined, true as const, 'p = "b"'), shown: fc.option(leaf, { nil: undefined }), option: fc.option(fc.constantFrom('n > 1', 'p = "a"'), { nil: undefined }),
      notes: fc.array(fc.oneof(leaf, fc.tuple(leaf, leaf).map(([a, b]) => `(${a}) and (${b})`), leaf.map(l => `not(${l})`)), { minLength: 1, maxLength: 3 }),
      split: fc.boolean(),
    })
    fc.assert(fc.property(cascade, ({ rows, narrowedBy, required, shown, option, notes, split }) => {
      const first: Item[] = [
        { kind: 'question', code: 'p', label: 'P', type: 'choice', options: codes.map(c => ({ code: c, label: c, ...(c === 'c' && option && !option.startsWith('p') ? { shownWhen: option } : {}) })) },
        { kind: 'question', code: 'm', label: 'M', type: 'choices', options: codes.map(c => ({ code: c, label: c })) },
        { kind: 'question', code: 'n', label: 'N', type: 'integer', min: 0, max: 3 },
      ]
      const rest: Item[] = [
        { kind: 'question', code: 'h', label: 'H', type: 'choice', list: 'hs', narrowedBy, ...(required === undefined ? {} : { required }), ...(shown === undefined || /\bh\b/.test(shown) ? {} : { shownWhen: shown }) },
        ...notes.map((rule, i): Item => ({ kind: 'note', code: `note${i}`, text: 'x', shownWhen: rule })),
      ]
      const form: Form = { tobbin: 1, code: 'f', title: 'F', lists: [{ code: 'hs', columns: ['parent', 'depth'], rows: rows.map((r, i) => ({ code: `h${i}`, label: `H${i}`, ...r })) }], sections: split ? [{ code: 's', title: 'S', items: first }, { code: 't', title: 'T', items: rest }] : [{ code: 's', title: 'S', items: [...first, ...rest] }] }
      const inquiry = new Inquiry(form, TODAY)
      const findings = [...neverShown.run(inquiry), ...deadEnd.run(inquiry)]
      expect(findings.filter(f => f.code === 'undecided')).toEqual([])
      const { plan } = inquiry.model
      const h = plan.byCode.get('h')
      const [seen, stuck] = [new Set<string>(), { is: false }]
      for (const p of [null, ...codes]) for (const m of [null, ['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], codes]) for (const n of [null, 0, 1, 2, 3]) for (const own of [null, ...rows.map((_, i) => `h${i}`)]) {
        const state = fill(plan, { p, m, n, h: own }, TODAY)
        const last = plan.sections.at(-1)
        if (!last || (split && plan.sections[0] && problemsIn(state, plan.sections[0]).length > 0)) continue
        for (const place of plan.places) if (state.inPlay[place.order]) seen.add(place.code)
        if (h && state.inPlay[h.place.order] && state.required[h.slot] && offeredNow(state, h)?.size === 0 && [...'pmn'].every(name => !new RegExp(`\\b${name}\\b`).test(narrowedBy) || state.values[plan.byCode.get(name)?.slot ?? -1] !== null)) stuck.is = true
      }
      for (const code of ['h', ...notes.map((_, i) => `note${i}`)]) expect([code, inquiry.impossible.has(plan.places.find(p => p.code === code)?.order ?? -1)]).toEqual([code, !seen.has(code)])
      expect(findings.some(f => f.code === 'dead-end')).toBe(stuck.is)
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
