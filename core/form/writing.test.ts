import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANSWERS, askedOf, condition, smallForm } from '../../tests/support/forms'
import { richForm } from '../../tests/support/richForms'
import { compile } from '../expressions/compile'
import { oppositeCondition } from '../expressions/opposite'
import { parse } from '../expressions/parse'
import { print } from '../expressions/print'
import type { Value } from '../expressions/types'
import { explainCondition, explainShown } from '../fill/explain'
import { fill } from '../fill/fill'
import { planOf } from '../fill/plan'
import { modelOf } from '../prove/model/model'
import { prove } from '../prove/prove'
import { BLOCKS } from './blocks'
import { TEMPLATES } from './templates'
import { clipOf, duplicateEdits, moveItemsEdits, pasteEdits, readClip, removeEdits } from './clipboard'
import type { Form, Item } from './definition'
import { applyEdits } from './edits'
import { readForm } from './read'
import { renameCode } from './rename'
import { findText, replaceFoundEdits, replaceTextEdits } from './findText'
import { mergeEdits, splitEdits } from './sections'
import { usesOf } from './uses'
import { listPlaces, type Address } from './walk'

const TODAY = '2026-11-24'
const WIRING = ['syntax-error', 'unknown-name', 'later-name', 'wrong-type', 'unknown-code', 'duplicate-code']
const wiring = (form: Form) =>
  prove(form, TODAY)
    .findings.filter(f => WIRING.includes(f.code))
    .map(f => `${f.at} ${f.code}`)
/** Where rules can't be read as they stand. */
const unread = (form: Form) =>
  modelOf(form, TODAY)
    .rules.filter(r => r.syntax !== null || r.problems.length > 0)
    .map(r => r.place.code)
const q = (code: string, more: object = {}): Item =>
  ({ kind: 'question', code, label: code, type: 'yesNo', ...more }) as Item
const form = (...sections: Item[][]): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: sections.map((items, i) => ({ code: `s${i + 1}`, title: `S${i + 1}`, items })),
})

describe('blocks and templates', () => {
  for (const { title, items } of BLOCKS)
    it(`${title} is clean`, () => expect(prove(form(items), TODAY).findings).toEqual([]))
  for (const t of TEMPLATES) {
    it(`${t.title} is clean`, () => {
      expect(readForm(t.form).problems).toBeNull()
      expect(prove(t.form, TODAY).findings).toEqual([])
    })
  }
})

describe('copies', () => {
  it('keep codes free of clashes, and nothing that was in order is out of order afterwards', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.array(fc.nat(30), { minLength: 1, maxLength: 1 }),
        (seed, picks) => {
          const before = richForm(seed)
          const places = listPlaces(before)
          const addresses = picks.flatMap(i => places[i % places.length]?.address ?? [])
          const clip = clipOf(before, places, addresses)
          expect(readClip(JSON.stringify(clip))).toEqual(clip)
          const { edits, notes } = duplicateEdits(before, places, addresses)
          const after = applyEdits(before, edits).form
          expect(readForm(after).problems).toBeNull()
          expect(notes).toEqual([])
          expect(wiring(after)).toEqual([])
          const codes = listPlaces(after).map(p => `${p.kind === 'section'}${p.code}`)
          expect(new Set(codes).size).toBe(codes.length)
          const titles = after.sections.map(s => s.title)
          const own = new Set(before.sections.map(s => s.title))
          if (own.size === before.sections.length) expect(new Set(titles).size).toBe(titles.length)
          const gone = applyEdits(before, removeEdits(before, places, addresses)).form
          expect(listPlaces(gone).length).toBeLessThan(places.length)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('copies', () => {
  it('inside a copy rules, quotes and paths mean the copy; what the other form lacks is said', () => {
    const from = form([
      q('gate'),
      q('outer'),
      {
        kind: 'group',
        code: 'g',
        title: 'G {{ gate }}',
        items: [q('a'), q('b', { shownWhen: 'a = true and outer = true' })],
      },
    ])
    const clip = clipOf(from, listPlaces(from), ['item/g'])
    const { edits } = pasteEdits(from, clip!, { into: 'section/s1', at: 3 }, 1)
    expect(JSON.stringify(applyEdits(from, edits).form.sections[0]?.items[3])).toBe(
      JSON.stringify({
        kind: 'group',
        code: 'g_2',
        title: 'G {{ gate }}',
        items: [q('a_2', { label: 'a' }), q('b_2', { label: 'b', shownWhen: 'a_2 = true and outer = true' })],
      }),
    )
    const other = pasteEdits(form([]), clip!, { into: 'section/s1', at: 0 }, 1)
    expect(other.notes).toEqual(['“b” names “outer”, which this form does not have.'])
    expect(usesOf(from, listPlaces(from), ['item/a']).map(u => `${u.place.code} ${u.words}`)).toEqual([
      'b shown when',
    ])
    expect(usesOf(from, listPlaces(from), ['item/gate']).map(u => `${u.place.code} ${u.words}`)).toEqual([
      'g quotes it',
    ])
  })
})

describe('copies', () => {
  it('whatever stops being understood when something is deleted was named before as using it; renamed, nothing stops', () => {
    const crew = form(
      [
        q('gate'),
        {
          kind: 'group',
          code: 'crew',
          title: 'Crew',
          repeat: { min: 0, max: 9 },
          items: [
            q('age', { type: 'integer' }),
            q('pays'),
            {
              kind: 'group',
              code: 'bags',
              title: 'Bags',
              repeat: { min: 0, max: 3 },
              items: [q('weight', { type: 'integer' })],
            },
          ],
        },
      ],
      [
        q('v', { shownWhen: 'some p in crew satisfies some b in p.bags satisfies b.weight > 20' }),
        q('x', { shownWhen: 'sum(crew.age) > 3' }),
        q('y', { shownWhen: 'some p in crew satisfies p.pays = true' }),
        q('z', { shownWhen: 'count(crew[pays = true and age > 5]) > 1' }),
        q('w', { label: 'Sum {{ sum(crew.age) }}' }),
      ],
    )
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }).map(richForm), before => {
        const places = listPlaces(before)
        const isFine = new Set(unread(before))
        for (const place of places.filter(p => p.kind !== 'section')) {
          const uses = new Set(usesOf(before, places, [place.address]).map(u => u.place.code))
          const gone = applyEdits(before, removeEdits(before, places, [place.address])).form
          const lost = unread(gone).filter(code => !isFine.has(code))
          expect(
            lost.filter(code => !uses.has(code)),
            place.address,
          ).toEqual([])
          expect(
            unread(renameCode(before, place.address, 'another_code')).filter(
              code => code !== 'another_code' && !isFine.has(code),
            ),
            place.address,
          ).toEqual([])
        }
      }),
      { numRuns: 25, examples: [[crew]] },
    )
  })
})

describe('copies', () => {
  it('moves several at once, in their order', () => {
    const f = form([q('a'), q('b'), q('c'), q('d')], [q('e')])
    const codes = (addresses: Address[], into: string, at: number) =>
      applyEdits(f, moveItemsEdits(f, addresses, { into, at })).form.sections.map(s =>
        s.items.map(i => i.code).join(''),
      )
    expect(codes(['item/a', 'item/c'], 'section/s2', 1)).toEqual(['bd', 'eac'])
    expect(codes(['item/a', 'item/b'], 'section/s1', 4)).toEqual(['cdab', 'e'])
    expect(codes(['item/d', 'item/b'], 'section/s1', 0)).toEqual(['bdac', 'e'])
  })
})

describe('sections', () => {
  it('a section split and merged again holds the same, and routes lead where they led', () => {
    const f: Form = { ...form([q('a'), q('b'), q('c')], [q('d')]) }
    f.sections[0]!.routes = [{ when: 'a = true', to: 's2' }]
    const split = applyEdits(
      f,
      splitEdits(
        f,
        listPlaces(f).find(p => p.code === 'b')!,
        'Second',
      ),
    ).form
    expect(split.sections.map(s => [s.code, s.items.length, s.routes?.length ?? 0])).toEqual([
      ['s1', 1, 0],
      ['s1_2', 2, 1],
      ['s2', 1, 0],
    ])
    const place = listPlaces(split).find(p => p.code === 's1_2')
    expect(place?.kind === 'section' && applyEdits(split, mergeEdits(split, place)).form).toEqual(f)
  })
  it('a merged section takes its rule along as a group', () => {
    const f = form([q('a')], [q('b')])
    f.sections[1]!.shownWhen = 'a = true'
    const place = listPlaces(f).find(p => p.code === 's2')
    if (place?.kind !== 'section') throw new Error('no section')
    const merged = applyEdits(f, mergeEdits(f, place)).form
    expect(merged.sections).toHaveLength(1)
    expect(merged.sections[0]?.items[1]).toMatchObject({ kind: 'group', shownWhen: 'a = true' })
  })
})

describe('find and replace', () => {
  it('finds in labels, codes and rules; a replaced code takes its rules along', () => {
    const f = form([q('hull_ok'), q('b', { label: 'The hull', shownWhen: 'hull_ok = true' })])
    expect(
      findText(f, listPlaces(f), { text: 'HULL' }, ['label', 'code', 'rule']).map(
        x => `${x.address} ${x.field} ${x.from}`,
      ),
    ).toEqual(['item/hull_ok label 0', 'item/hull_ok code 0', 'item/b label 4', 'item/b rule 0'])
    const { edits, count } = replaceTextEdits(f, { text: 'hull' }, 'keel', ['label', 'code'])
    const after = applyEdits(f, edits).form
    expect(count).toBe(3)
    expect(after.sections[0]?.items).toEqual(
      [q('keel_ok'), q('b', { label: 'The keel', shownWhen: 'keel_ok = true' })].map((i, n) =>
        n === 0 ? { ...i, label: 'keel_ok' } : i,
      ),
    )
  })

  it('finds by case and whole words when asked to, and replaces one by one', () => {
    const f = form([
      q('hull_ok', { label: 'Hull and hull_ok, hulls' }),
      q('b', { shownWhen: 'hull_ok = true' }),
    ])
    const at = (more: object) =>
      findText(f, listPlaces(f), { text: 'hull', ...more }, ['label', 'rule']).map(x => x.from)
    expect([at({}), at({ matchCase: true }), at({ wholeWord: true })]).toEqual([
      [0, 9, 18, 0],
      [9, 18, 0],
      [0],
    ])
    const [, second] = findText(f, listPlaces(f), { text: 'hull' }, ['label'])
    const edits = replaceFoundEdits(f, second!, 'keel')
    const after = Array.isArray(edits) ? applyEdits(f, edits).form : f
    expect(after.sections[0]?.items[0]).toMatchObject({ label: 'Hull and keel_ok, hulls' })
    const [code] = findText(f, listPlaces(f), { text: 'hull_ok' }, ['code'])
    expect(replaceFoundEdits(f, code!, 'b')).toBe('The code “b” is taken.')
  })
})

describe('the opposite', () => {
  it('holds exactly where the rule does not, once all is answered', () => {
    const asked = [
      { code: 'q0', kind: 'yesNo' },
      { code: 'q1', kind: 'choice' },
      { code: 'q2', kind: 'integer' },
    ] as const
    // A choice that is added later is none of those that a rule names.
    const answers = { ...ANSWERS, choice: [...ANSWERS.choice, 'added_later'] }
    fc.assert(
      fc.property(
        condition(asked, 2),
        fc.tuple(...asked.map(a => fc.constantFrom(...answers[a.kind]))),
        (text, values) => {
          const run = (source: string): Value =>
            compile(
              parse(source),
              name => asked.findIndex(a => a.code === name) + 2,
            )([TODAY, null, ...values])
          expect(run(print(oppositeCondition(parse(text))))).toBe(run(text) !== true)
        },
      ),
      { numRuns: 500 },
    )
    const said = (text: string) => print(oppositeCondition(parse(text)))
    const pairs = [
      ['q0 = true', 'q0 = false'],
      ['q1 = "a"', 'q1 != null and q1 != "a"'],
      ['q1 in ["a", "b"]', 'q1 != null and not(q1 in ["a", "b"])'],
      ['list contains(q3, "a")', 'q3 != null and not(list contains(q3, "a"))'],
      ['q2 >= 3 and q0 = false', 'q2 < 3 or q0 = true'],
    ] as const
    for (const [text, turned] of pairs) expect([said(text), said(turned)]).toEqual([turned, text])
  })

  it('is no more true of a blank answer than the rule itself', () => {
    const tests = [
      'q = "a"',
      'q in ["a", "b"]',
      'list contains(q, "a") or list contains(q, "b")',
      'contains(q, "a")',
    ]
    for (const text of tests)
      for (const rule of [text, print(oppositeCondition(parse(text)))])
        expect([rule, compile(parse(rule), () => 2)([TODAY, null, null])]).not.toEqual([rule, true])
  })
})

describe('explanations', () => {
  it('agree with the evaluator: each part, and why something shows', () => {
    fc.assert(
      fc.property(
        smallForm.chain(f =>
          fc.tuple(
            fc.constant(f),
            fc.tuple(...askedOf(f).map(a => fc.option(fc.constantFrom(null, ...ANSWERS[a.kind])))),
          ),
        ),
        ([f, values]) => {
          const plan = planOf(f)
          const state = fill(
            plan,
            Object.fromEntries(askedOf(f).map((a, i) => [a.code, values[i] ?? null])),
            TODAY,
          )
          for (const place of plan.places) {
            const reasons = explainShown(state, state, place)
            expect(reasons.every(r => r.outcome === true)).toBe(state.inPlay[place.order])
            for (const { part } of reasons) if (part) expect(part).toEqual(explainCondition(state, part.expr))
          }
        },
      ),
      { numRuns: 300 },
    )
  })
})
