import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { vi, type MockInstance } from 'vitest'

/** What a command writes from now on, kept instead of written. */
export const written = (stream: 'stdout' | 'stderr') =>
  vi.spyOn(process[stream], 'write').mockImplementation(() => true)
export const textOf = (spy: MockInstance<typeof process.stdout.write>): string =>
  spy.mock.calls.map(call => String(call[0])).join('')
/** A definition file with a text in it. @returns its path */
export function fileWith(text: string): string {
  const path = join(mkdtempSync(join(tmpdir(), 'tobbin-cli-')), 'x.form.json')
  writeFileSync(path, text)
  return path
}
