import { describe, expect, it } from 'vitest'
import { FORMAT_VERSION } from './definition'
import { readForm } from './read'
import { upgradeDefinition } from './upgrade'

/** A definition as it was written in version 1 of the format. */
const OLD = {
  tobbin: 1,
  code: 'moorings',
  title: 'Moorings',
  lists: [
    {
      code: 'berths',
      rows: [
        { code: 'a', label: 'A', mark: 'woad' },
        { code: 'b', label: 'B', mark: 'weld' },
        { code: 'c', label: 'C', mark: 'madder' },
        { code: 'd', label: 'D', mark: 'verdigris' },
        { code: 'e', label: 'E' },
      ],
    },
  ],
  sections: [
    {
      code: 's',
      title: 'S',
      items: [{ kind: 'question', type: 'choice', code: 'berth', label: 'Berth', list: 'berths' }],
    },
  ],
}

describe('a definition of an older format', () => {
  it('is read: its marks are called by what they say, and all else stays', () => {
    const before = structuredClone(OLD)
    const read = readForm(OLD)
    expect(OLD).toEqual(before)
    if (!read.form) throw new Error(JSON.stringify(read))
    const marks = read.form.lists?.[0]?.rows.map(r => r.mark)
    expect([read.form.tobbin, marks]).toEqual([
      FORMAT_VERSION,
      ['note', 'check', 'problem', 'done', undefined],
    ])
    expect(read.form.sections).toEqual(OLD.sections)
  })

  it('is refused, not guessed at, where a mark is none, or the format is newer than this one', () => {
    const rows = [{ code: 'a', label: 'A', mark: 'mauve' }]
    const wrong = readForm({ ...OLD, lists: [{ code: 'berths', rows }] })
    expect(wrong.form).toBeNull()
    expect(JSON.stringify(wrong)).toContain('lists')
    expect(readForm({ ...OLD, tobbin: FORMAT_VERSION + 1 }).form).toBeNull()
    for (const odd of [null, 7, [], { tobbin: '1' }, { tobbin: 0 }])
      expect(upgradeDefinition(odd)).toEqual(odd)
  })
})
