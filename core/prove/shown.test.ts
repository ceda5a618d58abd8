import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { neverShown } from './checks/neverShown'
import { promiseBroken } from './checks/promiseBroken'
import { unreachableSection } from './checks/unreachableSection'
import { Inquiry } from './goals/inquiry'
import { findingsOf } from './checks/check'
import { prove } from './prove'
import { allProblems } from '../fill/fill'
import { isOutOfPlay } from './checks/neverInPlay'
import { condition, askedOf, smallForm } from '../../tests/support/forms'
import { isMissingBehind } from '../../tests/support/restsOn'
import { RUNS, states, TODAY } from '../../tests/support/states'

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
          for (const { shown: rule, place } of planned.all) {
            if (rule?.run(state.values) === true) continue
            const text = place.node.shownWhen ?? ''
            if (!isMissingBehind(place, text, plan.places, state, planned)) always.delete(place.order)
          }
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
