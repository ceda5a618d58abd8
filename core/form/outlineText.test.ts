import type { Drafted } from './outlineQuestion'
import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { prove } from '../prove/prove'
import type { Form, Item } from './definition'
import { applyEdits } from './edits'
import { outlineEdits } from './outlineEdits'
import { readOutline } from './outlineText'
import { readForm } from './read'
import { listPlaces } from './walk'

const TODAY = '2026-11-24'
const WIRING = ['syntax-error', 'unknown-name', 'later-name', 'wrong-type', 'unknown-code', 'duplicate-code']
const wiring = (form: Form) =>
  prove(form, TODAY)
    .findings.filter(f => WIRING.includes(f.code))
    .map(f => `${f.at} ${f.code}`)
const q = (code: string, more: object = {}): Item =>
  ({ kind: 'question', code, label: code, type: 'yesNo', ...more }) as Item
const form = (...sections: Item[][]): Form => ({
  tobbin: 2,
  code: 'f',
  title: 'F',
  sections: sections.map((items, i) => ({ code: `s${i + 1}`, title: `S${i + 1}`, items })),
})

/** A drafted line in short: type, “*” where required, options, “+” with a write-in, its range, and the answer that it is asked behind. */
function brief(d: Drafted): string {
  if (d.kind === 'section') return `# ${d.title}`
  if (d.kind === 'note') return `> ${d.text}`
  const [star, plus] = [d.required ? '*' : '', d.writeIn ? '+' : '']
  const range = d.range ? ` ${d.range.min}-${d.range.max}` : ''
  const behind = d.behind ? ` < ${d.behind.answer.toLowerCase()}` : ''
  return `${d.label} | ${d.type}${star}${range} ${d.options.join(',')}${plus}`.trim() + behind
}

describe('outlines', () => {
  it('reads numbered questions, options, hints, headings', () => {
    const drafted = readOutline(`# Your boat
1. Boat's name *
2) Hull material
   - Wood
   - Steel
   - Other, please say ____
3. Is she insured?
4. What do you need? (tick all that apply)
[ ] Lift
[ ] Wash
5. Length over all (decimal) *
SECTION 2: THE VISIT
6. Date of arrival: ________
7. E-mail address
8. Would you like power?
o Yes
o No`)
    expect(drafted.map(brief)).toEqual([
      '# Your boat',
      "Boat's name | text*",
      'Hull material | choice Wood,Steel+',
      'Is she insured? | yesNo',
      'What do you need? | choices Lift,Wash',
      'Length over all | decimal*',
      '# The visit',
      'Date of arrival | date',
      'E-mail address | email',
      'Would you like power? | yesNo',
    ])
    const f = form([q('boat_name')])
    const after = applyEdits(
      f,
      outlineEdits(f, drafted.slice(1), { into: 'section/s1', at: 1 }, 1).edits,
    ).form
    expect(readForm(after).problems).toBeNull()
    expect(after.sections.map(s => s.items.length)).toEqual([6, 3])
    expect(wiring(after)).toEqual([])
  })
})

describe('checklists as offices write them', () => {
  const corpus = readFileSync(new URL('../../tests/fixtures/outlines.txt', import.meta.url), 'utf8')
  const pieces = corpus.split(/^=== /m).slice(1)
  it('are thirty', () => expect(pieces.length).toBeGreaterThanOrEqual(30))
  for (const piece of pieces) {
    const [title = '', ...lines] = piece.split('\n')
    const [text = '', wanted = ''] = lines.join('\n').split(/^---$/m)
    it(title, () => {
      const drafted = readOutline(text)
      expect(drafted.map(brief)).toEqual(wanted.split('\n').filter(Boolean))
      const f = form([])
      const { edits } = outlineEdits(f, drafted, { into: 'section/s1', at: 0 }, 1)
      const after = applyEdits(f, edits).form
      expect([readForm(after).problems, wiring(after)]).toEqual([null, []])
      const rules = listPlaces(after).filter(p => p.node.shownWhen !== undefined)
      expect(rules).toHaveLength(drafted.filter(d => d.kind === 'question' && d.behind).length)
    })
  }
})

describe('outlines', () => {
  it('reads rows of a spreadsheet by their headings', () => {
    const drafted = readOutline(
      'Section\tQuestion\tType\tOptions\tRequired\nBoat\tHull\tchoice\tWood; Steel\tyes\nBoat\tWeight\tnumber\t\t\nVisit\tArrival\tdate\t\tx',
    )
    expect(drafted).toMatchObject([
      { kind: 'section', title: 'Boat' },
      { label: 'Hull', type: 'choice', options: ['Wood', 'Steel'], required: true },
      { label: 'Weight', type: 'integer' },
      { kind: 'section', title: 'Visit' },
      { label: 'Arrival', type: 'date', required: true },
    ])
  })

  it('makes something of any text', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), text => {
        const f = form([])
        expect(
          readForm(
            applyEdits(
              f,
              outlineEdits(f, readOutline(text.replaceAll('\u0000', '')), { into: 'section/s1', at: 0 }, 1)
                .edits,
            ).form,
          ).problems,
        ).toBeNull()
      }),
    )
  })
})
