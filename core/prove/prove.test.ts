import { isNeverInPlay, isOutOfPlay } from './checks/neverInPlay'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { allProblems, fill, offeredNow, problemsIn, type Filled } from '../fill/fill'
import type { Answers } from '../form/answers'
import { namesIn } from '../expressions/tree'
import type { Form, Item } from '../form/definition'
import { ANSWERS, askedOf, condition, smallForm } from '../../tests/support/forms'
import { CHECKS } from './checks'
import { deadEnd } from './checks/deadEnd'
import { neverShown } from './checks/neverShown'
import { promiseBroken } from './checks/promiseBroken'
import { unreachableSection } from './checks/unreachableSection'
import { applyEdits } from '../form/edits'
import { listPlaces, nodeText, type Place } from '../form/walk'
import { planOf } from '../fill/plan'
import { Inquiry } from './goals/inquiry'
import { findingsOf } from './checks/check'
import { Memory } from './goals/memory'
import { prove } from './prove'

const TODAY = '2026-11-24'
const RUNS = Number(process.env.PROVE_FORMS ?? 1500)

/** Every state of a form, by the definition: all answers tried, everything before the current section complete. */
function* states(
  form: Form,
  inquiry: Inquiry,
): Generator<{ section: number; state: Filled; answers: Answers }> {
  const asked = askedOf(form)
  function* combine(
    i: number,
    answers: Record<string, string | number | boolean | readonly string[]>,
  ): Generator<Answers> {
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

describe('against brute force', () => {
  it('never shown, unreachable: the same verdict on random forms, and smallest witnesses', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const inquiry = new Inquiry(form, TODAY)
        const findings = [unreachableSection, neverShown].flatMap(c => findingsOf(c, inquiry))
        const { plan } = inquiry.model
        const seen = new Set<number>()
        const least = new Map<number, number>()
        for (const { section, state } of states(form, inquiry)) {
          const count = plan.questions.filter(
            q => q.place.section <= section && q.value === null && state.values[q.slot] !== null,
          ).length
          least.set(section, Math.min(least.get(section) ?? 99, count))
          for (const place of plan.places)
            if (place.section === section && state.inPlay[place.order]) seen.add(place.order)
        }
        for (const place of plan.places) {
          const impossible = isOutOfPlay(inquiry, { place })
          expect({ code: place.code, shown: !impossible }).toEqual({
            code: place.code,
            shown: seen.has(place.order),
          })
        }
        expect(findings.filter(f => f.code === 'undecided')).toEqual([])
        plan.sections.forEach((_, i) => {
          const witness = inquiry.wayTo(i)
          expect(witness === null ? undefined : Object.keys(witness).length).toBe(least.get(i))
        })
      }),
      { numRuns: RUNS },
    )
  })
})

describe('against brute force', () => {
  it('always shown: the same verdict on random forms', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const inquiry = new Inquiry(form, TODAY)
        const findings = prove(form, TODAY).findings
        const { plan } = inquiry.model
        const always = new Set(
          plan.places.filter(p => p.kind !== 'section' && p.node.shownWhen !== undefined).map(p => p.order),
        )
        const shown = new Set<number>()
        for (const { section, state } of states(form, inquiry)) {
          const planned = plan.sections[section]
          if (!planned) continue
          for (const step of planned.all) if (state.inPlay[step.place.order]) shown.add(step.place.order)
          if (problemsIn(state, planned).some(p => p.kind === 'missing')) continue
          for (const step of planned.all)
            if (step.shown?.run(state.values) !== true) always.delete(step.place.order)
        }
        const said = findings
          .filter(f => f.code === 'always-shown' && f.address?.startsWith('item/'))
          .map(f => f.at)
        const expected = plan.places.filter(p => always.has(p.order) && shown.has(p.order)).map(p => p.code)
        expect(said.sort()).toEqual(expected.sort())
      }),
      { numRuns: Math.ceil(RUNS / 2) },
    )
  })

  it('promises: broken just when some complete response breaks them, and the witness is a smallest one', () => {
    fc.assert(
      fc.property(
        smallForm.chain(form =>
          condition(askedOf(form)).map(holds => ({ ...form, promises: [{ code: 'p', text: 'P', holds }] })),
        ),
        form => {
          const inquiry = new Inquiry(form, TODAY)
          const { plan } = inquiry.model
          const holds = plan.promises[0]
          let least: number | undefined
          for (const { state } of states(form, inquiry)) {
            if (allProblems(state).length > 0 || holds?.run(state.values) === true) continue
            const count = plan.questions.filter(q => q.value === null && state.values[q.slot] !== null).length
            least = Math.min(least ?? count, count)
          }
          const [found, ...more] = findingsOf(promiseBroken, inquiry)
          expect(more).toEqual([])
          expect(found?.code).toBe(least === undefined ? undefined : 'promise-broken')
          if (found) expect(Object.keys(found.witness ?? {}).length).toBe(least)
        },
      ),
      { numRuns: Math.ceil(RUNS / 3) },
    )
  })
})

describe('against brute force', () => {
  it('cascades: never shown and dead ends, the same verdict on random lists narrowed by one another', () => {
    const codes = ['a', 'b', 'c']
    const leaf = fc.constantFrom(
      'p = "a"',
      'p != null',
      'h in ["h0", "h3"]',
      'h = "h1"',
      'h.row.depth > 1',
      'h.row.depth < n',
      'n >= 2',
      'list contains(m, "b")',
    )
    const cascade = fc.record({
      rows: fc.array(
        fc.record({ parent: fc.constantFrom(...codes, 'z'), depth: fc.integer({ min: 0, max: 2 }) }),
        { minLength: 4, maxLength: 5 },
      ),
      narrowedBy: fc.constantFrom(
        'row.parent = p',
        'list contains(m, row.parent)',
        'row.parent = p and row.depth >= n',
        'row.depth < n',
      ),
      required: fc.constantFrom(undefined, true as const, 'p = "b"'),
      shown: fc.option(leaf, { nil: undefined }),
      option: fc.option(fc.constantFrom('n > 1', 'p = "a"'), { nil: undefined }),
      notes: fc.array(
        fc.oneof(
          leaf,
          fc.tuple(leaf, leaf).map(([a, b]) => `(${a}) and (${b})`),
          leaf.map(l => `not(${l})`),
        ),
        { minLength: 1, maxLength: 3 },
      ),
      split: fc.boolean(),
    })
    fc.assert(
      fc.property(cascade, ({ rows, narrowedBy, required, shown, option, notes, split }) => {
        const first: Item[] = [
          {
            kind: 'question',
            code: 'p',
            label: 'P',
            type: 'choice',
            options: codes.map(c => ({
              code: c,
              label: c,
              ...(c === 'c' && option && !option.startsWith('p') ? { shownWhen: option } : {}),
            })),
          },
          {
            kind: 'question',
            code: 'm',
            label: 'M',
            type: 'choices',
            options: codes.map(c => ({ code: c, label: c })),
          },
          { kind: 'question', code: 'n', label: 'N', type: 'integer', min: 0, max: 3 },
        ]
        const rest: Item[] = [
          {
            kind: 'question',
            code: 'h',
            label: 'H',
            type: 'choice',
            list: 'hs',
            narrowedBy,
            ...(required === undefined ? {} : { required }),
            ...(shown === undefined || /\bh\b/.test(shown) ? {} : { shownWhen: shown }),
          },
          ...notes.map((rule, i): Item => ({ kind: 'note', code: `note${i}`, text: 'x', shownWhen: rule })),
        ]
        const form: Form = {
          tobbin: 2,
          code: 'f',
          title: 'F',
          lists: [
            {
              code: 'hs',
              columns: ['parent', 'depth'],
              rows: rows.map((r, i) => ({ code: `h${i}`, label: `H${i}`, ...r })),
            },
          ],
          sections: split
            ? [
                { code: 's', title: 'S', items: first },
                { code: 't', title: 'T', items: rest },
              ]
            : [{ code: 's', title: 'S', items: [...first, ...rest] }],
        }
        const inquiry = new Inquiry(form, TODAY)
        const findings = [neverShown, deadEnd].flatMap(c => findingsOf(c, inquiry))
        expect(findings.filter(f => f.code === 'undecided')).toEqual([])
        const { plan } = inquiry.model
        const h = plan.byCode.get('h')
        const [seen, stuck] = [new Set<string>(), { is: false }]
        for (const p of [null, ...codes])
          for (const m of [null, ['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], codes])
            for (const n of [null, 0, 1, 2, 3])
              for (const own of [null, ...rows.map((_, i) => `h${i}`)]) {
                const state = fill(plan, { p, m, n, h: own }, TODAY)
                const last = plan.sections.at(-1)
                if (!last || (split && plan.sections[0] && problemsIn(state, plan.sections[0]).length > 0))
                  continue
                for (const place of plan.places) if (state.inPlay[place.order]) seen.add(place.code)
                if (
                  h &&
                  state.inPlay[h.place.order] &&
                  state.required[h.slot] &&
                  offeredNow(state, h)?.size === 0 &&
                  [...'pmn'].every(
                    name =>
                      !new RegExp(`\\b${name}\\b`).test(narrowedBy) ||
                      state.values[plan.byCode.get(name)?.slot ?? -1] !== null,
                  )
                )
                  stuck.is = true
              }
        for (const code of ['h', ...notes.map((_, i) => `note${i}`)])
          expect([code, isNeverInPlay(inquiry, plan.places.find(p => p.code === code)?.order ?? -1)]).toEqual(
            [code, !seen.has(code)],
          )
        expect(findings.some(f => f.code === 'dead-end')).toBe(stuck.is)
      }),
      { numRuns: Math.ceil(RUNS / 3) },
    )
  })
})

describe('against brute force', () => {
  it('required, valid and route rules, and the finish: the same verdict on random forms', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const inquiry = new Inquiry(form, TODAY)
        const { plan } = inquiry.model
        const seen = new Set<string>()
        for (const { section, state } of states(form, inquiry)) {
          const planned = plan.sections[section]
          if (!planned) continue
          const problems = problemsIn(state, planned)
          for (const q of planned.questions) {
            if (!state.inPlay[q.place.order]) continue
            seen.add(`${q.place.code} in play`)
            if (state.required[q.slot]) seen.add(`${q.place.code} required`)
            else if (!problems.some(p => p.kind === 'missing')) seen.add(`${q.place.code} not required`)
            if (state.values[q.slot] === null) continue
            for (const check of q.checks) {
              if (check.run(state.values) === false) seen.add(`${q.place.code} false`)
              const isFull = namesIn(check.expr!).every(
                name =>
                  !state.inPlay[plan.byCode.get(name)?.place.order ?? -1] ||
                  state.values[plan.byCode.get(name)?.slot ?? -1] !== null,
              )
              if (isFull) seen.add(`${q.place.code} asked`)
              if (isFull && check.run(state.values) !== false) seen.add(`${q.place.code} met`)
            }
          }
          if (problems.length > 0) continue
          seen.add(
            `${planned.place.code} route ${planned.routes.findIndex(r => r.when === null || r.when.run(state.values) === true)}`,
          )
          seen.add(`${planned.place.code} left`)
          if (allProblems(state).length === 0) seen.add('finish')
        }
        const found = CHECKS.flatMap(check => findingsOf(check, inquiry))
          .filter(f =>
            [
              'never-required',
              'always-required',
              'unmeetable-valid',
              'idle-valid',
              'never-taken',
              'shadowed-route',
              'unreachable-finish',
            ].includes(f.code),
          )
          .map(f =>
            `${f.at} ${f.code.replace('shadowed-route', 'never-taken')} ${f.rule?.split(':')[2] ?? ''}`.trim(),
          )
        // A check that nothing meets says by itself that nobody gets through.
        const isStuck =
          !seen.has('finish') &&
          !plan.questions.some(q => q.checks.length > 0 && !seen.has(`${q.place.code} met`))
        const expected = isStuck ? ['null unreachable-finish'] : []
        for (const { place, required, checks } of plan.questions) {
          const has = (what: string) => seen.has(`${place.code} ${what}`)
          if (!has('in play')) continue
          if (required !== null && required !== true && !has('required'))
            expected.push(`${place.code} never-required`)
          if (required !== null && required !== true && !has('not required'))
            expected.push(`${place.code} always-required`)
          if (checks.length > 0 && has('asked') && !has('met'))
            expected.push(`${place.code} unmeetable-valid 0`)
          if (checks.length > 0 && !has('false')) expected.push(`${place.code} idle-valid 0`)
        }
        for (const s of plan.sections)
          if (!isNeverInPlay(inquiry, s.place.order))
            s.routes.forEach((r, i) => {
              if (!seen.has(`${s.place.code} route ${i}`))
                expected.push(`${s.place.code} never-taken ${r.index}`)
            })
        if (found.includes('null unreachable-finish')) expect(seen.has('finish')).toBe(false)
        const others = (all: readonly string[]) =>
          all.filter(f => isStuck || f !== 'null unreachable-finish').sort()
        expect(others(found)).toEqual(others(expected))
      }),
      { numRuns: Math.ceil(RUNS / 3) },
    )
  })
})

describe('against brute force', () => {
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
          // Lifting the thing's own rule must make it possible, since that rule is part of a smallest conflict.
          const lifted = JSON.parse(
            JSON.stringify(form, (_, v) =>
              v?.code === own.code && !(own.kind === 'section') === 'kind' in v
                ? { ...v, shownWhen: undefined }
                : v,
            ),
          ) as Form
          expect(
            prove(lifted, TODAY).findings.some(f => f.code === 'never-shown' && f.at === finding.at),
          ).toBe(false)
        }
      }),
      { numRuns: Math.ceil(RUNS / 5) },
    )
  })
})
