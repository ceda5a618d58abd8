import { nodeText, listPlaces } from './walk'
import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { goesByNames } from '../../tests/support/byNames'
import { smallForm } from '../../tests/support/forms'
import { Form } from './definition'
import { applyEdits, EditError, type Edit } from './edits'
import { newItem, retypeQuestion } from './create'
import { readForm, readFormText } from './read'
import { renameCode } from './rename'
import { prove } from '../prove/prove'
import { TYPES } from './types'

const demo = (name: string) =>
  readFileSync(new URL(`../../demo/forms/${name}.form.json`, import.meta.url), 'utf8')

/** A random edit of a form: sometimes one that can't be made. */
const edit = (form: Form): fc.Arbitrary<Edit> => {
  const places = listPlaces(form)
  const some = fc.constantFrom(...places)
  const home = fc.constantFrom(
    ...places.filter(p => p.kind === 'section' || p.kind === 'group').map(p => p.address),
  )
  const at = fc.nat(4)
  return fc.oneof(
    some.map((p): Edit => ({ do: 'remove', what: p.address })),
    fc
      .tuple(home, at, fc.constantFrom(...(Object.keys(TYPES) as (keyof typeof TYPES)[])))
      .map(([into, i, type]): Edit => ({
        do: 'insert',
        into,
        at: i,
        node: newItem(form, type, 'A new one'),
      })),
    fc.tuple(some, home, at).map(([p, into, i]): Edit => ({
      do: 'move',
      what: p.address,
      into: p.kind === 'section' ? 'sections' : into,
      at: i,
    })),
    some.map((p): Edit => ({
      do: 'change',
      what: p.address,
      set: {
        shownWhen: 'true',
        [nodeText(p.node).key]: 'Changed',
      },
    })),
    some.map((p): Edit => ({
      do: 'change',
      what: p.address,
      set: p.kind === 'question' ? { ...retypeQuestion(p.node, 'choice'), shownWhen: null } : { nonsense: 1 },
    })),
  )
}

describe('edits', () => {
  it('every edit is undone by its inverse, to the byte, and redone', () => {
    fc.assert(
      fc.property(
        smallForm.chain(form =>
          fc.tuple(fc.constant(form), fc.array(edit(form), { minLength: 1, maxLength: 6 })),
        ),
        ([form, edits]) => {
          let now = form
          const back: Edit[] = []
          const made: Edit[] = []
          for (const e of edits) {
            try {
              const done = applyEdits(now, [e])
              now = done.form
              back.unshift(...done.inverses)
              made.push(e)
            } catch (error) {
              expect(error).toBeInstanceOf(EditError)
            }
          }
          expect(readForm(now).problems).toBeNull()
          expect(JSON.stringify(applyEdits(now, back).form)).toBe(JSON.stringify(form))
          expect(JSON.stringify(applyEdits(form, made).form)).toBe(JSON.stringify(now))
        },
      ),
      { numRuns: 500 },
    )
  })
  it('renaming a question re-writes every rule that uses it: the findings stay the same', () => {
    fc.assert(
      fc.property(smallForm, form => {
        const renamed = renameCode(form, 'item/q0', 'renamed_one')
        const codes = (f: Form) =>
          prove(f, '2026-11-24')
            .findings.filter(x => !goesByNames(x))
            .map(x => [x.code, x.at === 'q0' ? 'renamed_one' : x.at])
        expect(codes(renamed)).toEqual(codes(form))
        expect(JSON.stringify(renamed)).not.toMatch(/\bq0\b(?!")/)
      }),
      { numRuns: 200 },
    )
  })
})

describe('reading a definition', () => {
  it('gives the definition back as it was written, faults and all', () => {
    for (const name of ['haul_out', 'slipway_incident', 'mooring', 'after_launch']) {
      const { form, problems } = readFormText(demo(name))
      expect(problems).toBeNull()
      expect(`${JSON.stringify(form, null, 2)}\n`).toBe(demo(name))
    }
  })

  it('lists every problem with its path and what was expected', () => {
    const bad = {
      tobbin: 3,
      code: 'Bad code',
      sections: [
        {
          code: 's',
          title: 'S',
          items: [
            { kind: 'question', type: 'integr', code: 'q', label: 'Q' },
            { kind: 'question', type: 'integer', code: 'and', label: 3, min: '1', colour: 'red' },
            { kind: 'group', code: 'g', title: 'G', items: [{ kind: 'heading' }] },
          ],
        },
      ],
      extra: true,
    }
    const { problems } = readForm(bad)
    const at = (path: string) => problems?.find(p => p.path === path)?.sentence
    expect(at('tobbin')).toBe('2 is expected, not 3.')
    expect(at('code')).toContain('small letters')
    expect(at('title')).toContain('missing')
    expect(at('extra')).toContain('no “extra”')
    expect(at('sections[0].items[0].type')).toContain('Did you mean “integer”?')
    expect(at('sections[0].items[1].code')).toContain('rule language')
    expect(at('sections[0].items[1].label')).toContain('a text is expected')
    expect(at('sections[0].items[1].colour')).toContain('no “colour”')
    expect(at('sections[0].items[2].items[0].kind')).toContain('“group”')
  })
})

describe('reading a definition', () => {
  it('survives anything: nonsense, depth, size', () => {
    fc.assert(
      fc.property(fc.anything(), data => {
        expect(readForm(data).problems?.length).toBeGreaterThan(0)
      }),
    )
    let deep: unknown = []
    for (let i = 0; i < 50_000; i++) deep = [deep]
    expect(readForm({ sections: deep }).problems?.[0]?.sentence).toContain('deep')
    const large = JSON.stringify({
      tobbin: 2,
      code: 'x',
      title: 'X',
      sections: Array.from({ length: 60_000 }, (_, i) => ({ code: `Bad ${i}`, title: i, items: {} })),
    })
    expect(large.length).toBeGreaterThan(2_000_000)
    expect(readFormText(large).problems?.length).toBeGreaterThan(0)
    expect(readFormText('{').problems?.[0]?.sentence).toContain('not JSON')
  })

  it('the JSON Schema that docs/ ships is the one made from the Zod schema', () => {
    const shipped: unknown = JSON.parse(
      readFileSync(new URL('../../docs/form.schema.json', import.meta.url), 'utf8'),
    )
    expect(shipped).toEqual(JSON.parse(JSON.stringify(z.toJSONSchema(Form, { io: 'input' }))))
  })
})
