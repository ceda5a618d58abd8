import { afterEach, describe, expect, it, vi } from 'vitest'
import { ProveOutput } from './output'
import { proveCommand } from './prove'
import { fileWith, textOf, written } from './testFiles'

afterEach(() => vi.restoreAllMocks())

describe('tobbin prove', () => {
  it('exits 0 without a fault, 1 with faults, 2 for what can’t be read', () => {
    const [out, err] = [written('stdout'), written('stderr')]
    expect(proveCommand(['demo/forms/haul_out.form.json'], '')).toBe(0)
    expect(textOf(out)).toContain('0 findings')
    expect(proveCommand(['demo/forms/mooring.form.json'], '')).toBe(1)
    expect(proveCommand(['no/such/file.json'], '')).toBe(2)
    expect(proveCommand([fileWith('{ "tobbin": 1 }')], '')).toBe(2)
    expect(textOf(err)).toContain('sections: This is missing')
    expect(proveCommand([], 'the usage')).toBe(2)
    expect(proveCommand(['demo/forms/haul_out.form.json', '--xml'], '')).toBe(2)
  })
})

describe('tobbin prove', () => {
  it('takes several files, fails from the weight asked for, and writes what build servers read', () => {
    const [out] = [written('stdout'), written('stderr')]
    const risky = fileWith(
      JSON.stringify({
        tobbin: 2,
        code: 'f',
        title: 'F',
        sections: [
          {
            code: 's',
            title: 'S & T',
            items: [{ kind: 'question', type: 'yesNo', code: 'a', label: 'A "<b>"', shownWhen: '1 = 1' }],
          },
        ],
        walks: [{ code: 'w', title: 'All shown', answers: { a: true }, expect: { inPlay: ['a'] } }],
      }),
    )
    expect(proveCommand([risky], '')).toBe(0)
    expect(proveCommand([risky, '--fail-on', 'risk'], '')).toBe(1)
    expect(proveCommand([risky, '--fail-on', 'nothing'], '')).toBe(2)
    expect(textOf(out)).toContain('1 of 1 walks as expected')
    out.mockClear()
    expect(proveCommand(['demo/forms/haul_out.form.json', risky, '--junit', '--fail-on', 'risk'], '')).toBe(1)
    const junit = textOf(out)
    expect(junit.match(/<testsuite /g)).toHaveLength(2)
    expect(junit).toContain('failures="1"')
    expect(junit).toContain('A &quot;&lt;b&gt;&quot;')
    out.mockClear()
    expect(proveCommand(['demo/forms/haul_out.form.json', risky, '--json'], '')).toBe(0)
    expect(JSON.parse(textOf(out)).files.map((f: { findings: unknown[] }) => f.findings.length)).toEqual([
      0, 1,
    ])
    const missed = fileWith(
      JSON.stringify({
        tobbin: 2,
        code: 'f',
        title: 'F',
        sections: [
          { code: 's', title: 'S', items: [{ kind: 'question', type: 'yesNo', code: 'a', label: 'A' }] },
        ],
        walks: [{ code: 'w', title: 'None', answers: {}, expect: { notInPlay: ['a'] } }],
      }),
    )
    expect(proveCommand([missed], '')).toBe(1)
  })
})

describe('tobbin prove', () => {
  it('prints JSON of the documented shape', () => {
    const out = written('stdout')
    expect(proveCommand(['demo/forms/mooring.form.json', '--json'], '')).toBe(1)
    const { findings } = JSON.parse(textOf(out))
    expect(findings.map((f: { at: string; code: string }) => `${f.at} ${f.code}`).sort()).toEqual([
      'areas childless-parent',
      'club_name unknown-code',
      'guardian never-shown',
      'instalments circle',
      'insurance backward-route',
      'long_boat always-shown',
      'mooring dead-end',
      'moorings orphan-row',
      'payer wrong-type',
      'policy_no contradicts-outer',
      'reason label-for-code',
      'tackle unknown-name',
    ])
    expect(ProveOutput.safeParse(JSON.parse(textOf(out))).error).toBeUndefined()
    const reason = findings.find((f: { at: string }) => f.at === 'reason')
    expect(reason.rule).toMatchObject({
      kind: 'shownWhen',
      index: 0,
      text: expect.stringContaining('give it up'),
    })
    expect(reason.mend.words).toContain('give_up')
    const policy = findings.find((f: { at: string }) => f.at === 'policy_no')
    expect(policy.conflict.sort()).toEqual(['insurance', 'policy_no'])
    expect(policy.witness).toMatchObject({ insured_elsewhere: false })
  })
})
