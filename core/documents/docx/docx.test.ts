import fc from 'fast-check'
import mammoth from 'mammoth'
import { describe, expect, it } from 'vitest'
import { docxOf, paragraphOf, tableOf } from '../../../tests/support/docx'
import { fill } from '../../fill/fill'
import { planOf } from '../../fill/plan'
import type { Answers } from '../../form/answers'
import { readForm } from '../../form/read'
import { openLabel } from '../blankLabel'
import { textOfContent } from '../content'
import { NO_PICTURES } from '../pictures'
import { fillDocx } from './fillDocx'
import { prepareDocx } from './prepareDocx'
import { readContent } from './readContent'
import { readDocx } from './readDocx'

const TODAY = '2026-11-24'
const q = (type: string, code: string, more: object = {}) => ({
  kind: 'question',
  type,
  code,
  label: code,
  ...more,
})
const CONDITIONS = [
  'insured',
  'not(insured)',
  'hives > 3',
  'insured = true and hives >= 10',
  'list contains(wants, "smoke")',
  'breed = "buckfast" or wants = null',
  'hives != null and hives * 2 < 9',
  'count(stands) > 1',
]
/** What a condition is in the form itself: a note that is shown by it. */
const form = readForm({
  tobbin: 2,
  code: 'bees',
  title: 'Bees',
  sections: [
    {
      code: 'hive',
      title: 'Hive',
      items: [
        q('text', 'keeper'),
        q('yesNo', 'insured'),
        q('integer', 'hives'),
        q('choice', 'breed', {
          options: [
            { code: 'buckfast', label: 'Buckfast' },
            { code: 'dark', label: 'Dark' },
          ],
        }),
        q('choices', 'wants', {
          options: [
            { code: 'smoke', label: 'Smoker', price: 12 },
            { code: 'veil', label: 'Veil & hat', price: 30.5 },
          ],
        }),
        {
          kind: 'group',
          code: 'stands',
          title: 'Stands',
          repeat: { max: 4 },
          items: [q('text', 'place'), q('integer', 'boxes')],
        },
      ],
    },
    {
      code: 'end',
      title: 'End',
      items: CONDITIONS.map((shownWhen, i) => ({ kind: 'note', code: `c${i}`, text: `c${i}`, shownWhen })),
    },
  ],
})
if (!form.form) throw new Error(JSON.stringify(form.problems))
const plan = planOf(form.form)

const answers: fc.Arbitrary<Answers> = fc.record(
  {
    keeper: fc.string({ minLength: 1, maxLength: 12 }).filter(t => t.trim() === t && !t.includes('{{')),
    insured: fc.boolean(),
    hives: fc.integer({ min: 0, max: 20 }),
    breed: fc.constantFrom('buckfast', 'dark'),
    wants: fc.subarray(['smoke', 'veil'], { minLength: 1 }),
    stands: fc.array(fc.record({ place: fc.constantFrom('Ash wood', 'Mill', '<&>'), boxes: fc.nat(9) }), {
      maxLength: 4,
    }),
  },
  { requiredKeys: [] },
)

/** A text cut into runs at random places, as word processors do. */
const cut = (text: string, at: readonly number[]): string => {
  const spots = [...new Set(at.map(n => n % text.length))].sort((a, b) => a - b)
  return paragraphOf(...[...spots, text.length].map((to, i) => text.slice(spots[i - 1] ?? 0, to)))
}
const cuts = fc.array(fc.nat(200), { maxLength: 8 })
const linesOf = async (bytes: Uint8Array) =>
  (await mammoth.extractRawText({ buffer: Buffer.from(bytes) })).value.split('\n').filter(line => line !== '')
const filledWith = (bytes: Uint8Array, given: Answers) =>
  fillDocx(prepareDocx(bytes), fill(plan, given, TODAY))

describe('a template that was written in a word processor', () => {
  it('prints exactly the clauses whose condition the form itself calls true, however its tags are split', async () => {
    await fc.assert(
      fc.asyncProperty(answers, cuts, fc.boolean(), async (given, at, isInline) => {
        const body = CONDITIONS.flatMap((condition, i) => {
          const [open, other, close] = [
            `{{#when ${condition.replaceAll('"', '”')}}}`,
            '{{else}}',
            '{{/when}}',
          ]
          if (isInline) return [cut(`${open}yes ${i}${other}no ${i}${close}`, at)]
          return [cut(open, at), cut(`yes ${i}`, at), cut(other, at), cut(`no ${i}`, at), cut(close, at)]
        }).join('')
        const filled = fill(plan, given, TODAY)
        const isTrue = (i: number) => filled.inPlay[plan.places.findIndex(p => p.code === `c${i}`)]
        expect(await linesOf(filledWith(docxOf(body), given))).toEqual(
          CONDITIONS.map((_, i) => `${isTrue(i) ? 'yes' : 'no'} ${i}`),
        )
      }),
    )
  })

  it('goes through entries and choices in paragraphs and in rows of tables, and quotes what stands there', async () => {
    await fc.assert(
      fc.asyncProperty(answers, async given => {
        const body =
          tableOf(
            ['Place', 'Boxes'],
            ['{{#each stands}}{{ item.number }} {{ place }}', '{{ boxes }}{{/each}}'],
          ) +
          paragraphOf('{{#each wants}}') +
          paragraphOf('{{ item.label | upper case }} {{ item.price | money }}') +
          paragraphOf('{{/each}}') +
          paragraphOf('Keeper: {{ keeper }}')
        const stands = (given.stands ?? []) as { place: string; boxes: number }[]
        const wants = (given.wants ?? []) as string[]
        const told = { smoke: 'SMOKER 12.00', veil: 'VEIL & HAT 30.50' } as Record<string, string>
        const made = filledWith(docxOf(body), given)
        const lines = await linesOf(made)
        const read = textOfContent(readContent(made).body).split(/[\n\t]/)
        expect(read.filter(line => line !== '')).toEqual(lines)
        const keeper = typeof given.keeper === 'string' ? given.keeper : ''
        expect(lines.map(l => l.trim())).toEqual([
          ...['Place', 'Boxes', ...stands.flatMap((s, i) => [`${i + 1} ${s.place}`, `${s.boxes}`])],
          ...wants.map(w => told[w]),
          `Keeper: ${keeper}`.trim(),
        ])
      }),
    )
  })
})

describe('a template with errors', () => {
  it('tells all that is wrong with it at once, with the words around it and the nearest right name', () => {
    const told = (...lines: string[]) =>
      readDocx(docxOf(lines.map(l => paragraphOf(l)).join('')), plan).problems.map(p => [
        p.marked,
        p.sentence,
        p.near,
      ])
    expect(
      told('Dear {{ keepr }},', '{{#when insurd}}x{{/when}}', '{{#each stand}}{{ boxes }}{{/each}}'),
    ).toEqual([
      ['{{ keepr }}', expect.stringContaining('keepr'), 'keeper'],
      ['{{#when insurd}}', expect.stringContaining('insurd'), 'insured'],
      ['{{#each stand}}', 'There is no “stand” to go over.', 'stands'],
    ])
    expect(told('a {{ keeper', '{{/when}} b', '{{#each stands}}', '{{#if x}}').map(([mark]) => mark)).toEqual(
      expect.arrayContaining(['{{', '{{/when}}', '{{#each stands}}', '{{#if x}}']),
    )
    const torn = docxOf(tableOf(['{{#each stands}}', 'x']) + paragraphOf('{{/each}}'))
    expect(readDocx(torn, plan).problems[0]?.sentence).toContain('tear the table')
  })
})

describe('what is no template', () => {
  it.each([
    ['no archive', new TextEncoder().encode('Hello'), 'no .docx'],
    ['an older document', new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 1]), 'older kind'],
    ['macros', docxOf('', { 'word/vbaProject.bin': 'x' }), 'macros'],
    [
      'a document type',
      docxOf('', { 'word/footer1.xml': '<!DOCTYPE x [<!ENTITY y SYSTEM "file:///etc/passwd">]><x>&y;</x>' }),
      'document type',
    ],
    ['what is too large', docxOf('', { 'word/bomb.xml': ' '.repeat(120_000_000) }), 'too large'],
    ['no XML', docxOf('</w:p>'), 'damaged'],
  ])('is refused: %s', (_name, bytes, why) => {
    expect(() => readDocx(bytes, plan)).toThrow(why)
  })
})

it('marks what is open in a preview also between the rows of a table, which stays one', async () => {
  const rows = [
    ['Place', 'Hives'],
    ['{{#when insured = true}}Cover', '{{ hives | in words }}{{/when}}'],
  ]
  const grid = '<w:tblGrid><w:gridCol/><w:gridCol/></w:tblGrid>'
  const template = prepareDocx(docxOf(tableOf(...rows).replace('<w:tbl>', `<w:tbl>${grid}`)))
  const shown = async (given: Answers) => {
    const filling = { pictures: NO_PICTURES, open: openLabel }
    const bytes = fillDocx(template, fill(plan, given, TODAY), filling)
    return (await mammoth.convertToHtml({ buffer: Buffer.from(bytes) })).value.replaceAll(/<\/?p>/g, '')
  }
  const note = '<tr><td colspan="2">‹a clause rests on ‹insured››</td></tr>'
  const head = '<tr><td>Place</td><td>Hives</td></tr>'
  expect(await shown({})).toBe(`<table>${head}${note}</table>`)
  const told = '<tr><td>Cover</td><td>seventeen</td></tr>'
  expect(await shown({ insured: true, hives: 17 })).toBe(`<table>${head}${told}</table>`)
})
