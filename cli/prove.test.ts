import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { proveCommand } from './prove'

const written = (stream: 'stdout' | 'stderr') => vi.spyOn(process[stream], 'write').mockImplementation(() => true)
const textOf = (spy: ReturnType<typeof written>) => spy.mock.calls.map(c => String(c[0])).join('')
const file = (text: string) => {
  const path = join(mkdtempSync(join(tmpdir(), 'tobbin-cli-')), 'x.form.json')
  writeFileSync(path, text)
  return path
}

describe('tobbin prove', () => {
  afterEach(() => vi.restoreAllMocks())

  it('exits 0 without a fault, 1 with faults, 2 for what can’t be read', () => {
    const [out, err] = [written('stdout'), written('stderr')]
    expect(proveCommand(['demo/forms/haul_out.form.json'], '')).toBe(0)
    expect(textOf(out)).toContain('0 findings')
    expect(proveCommand(['demo/forms/mooring.form.json'], '')).toBe(1)
    expect(proveCommand(['no/such/file.json'], '')).toBe(2)
    expect(proveCommand([file('{ "tobbin": 1 }')], '')).toBe(2)
    expect(textOf(err)).toContain('sections: This is missing')
    expect(proveCommand([], 'the usage')).toBe(2)
    expect(proveCommand(['demo/forms/haul_out.form.json', '--xml'], '')).toBe(2)
  })

  it('prints JSON of the documented shape', () => {
    const out = written('stdout')
    expect(proveCommand(['demo/forms/mooring.form.json', '--json'], '')).toBe(1)
    const { findings } = JSON.parse(textOf(out))
    expect(findings.map((f: { at: string, code: string }) => `${f.at} ${f.code}`).sort()).toEqual([
      'club_name unknown-code', 'guardian never-shown', 'instalments circle', 'insurance backward-route', 'long_boat always-shown',
      'payer wrong-type', 'policy_no never-shown', 'reason label-for-code', 'tackle unknown-name',
    ])
    for (const f of findings) expect(Object.keys(f)).toEqual(['code', 'severity', 'at', 'sentence', 'conflict', 'witness'])
    const policy = findings.find((f: { at: string }) => f.at === 'policy_no')
    expect(policy.conflict.sort()).toEqual(['insurance', 'policy_no'])
    expect(policy.witness).toMatchObject({ insured_elsewhere: false })
  })
})
