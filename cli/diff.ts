import { parseArgs } from 'node:util'
import type { z } from 'zod'
import { describeEdits, type EditLine } from '../core/form/describeEdits'
import { editsBetween } from '../core/form/editsBetween'
import type { DiffOutput } from './output'
import { readFormFile } from './readFormFile'

/** `tobbin diff`: prints what a definition file changes against another one. @returns 0 the same, 1 not the same, 2 can’t be read */
export function diffCommand(args: readonly string[], usage: string): number {
  const options = optionsOf(args)
  if (typeof options === 'string') {
    process.stderr.write(options === '' ? usage : `${options}\n\n${usage}`)
    return 2
  }
  const { files, isJson } = options
  const [before, after] = files.map(readFormFile)
  for (const [i, read] of [before, after].entries())
    for (const p of read?.problems ?? [])
      process.stderr.write(`${files[i]}: ${p.path || 'the whole'}: ${p.sentence}\n`)
  if (!before?.form || !after?.form) return 2
  const changes = describeEdits(before.form, editsBetween(before.form, after.form))
  const output: z.infer<typeof DiffOutput> = { changes }
  process.stdout.write(isJson ? `${JSON.stringify(output, null, 2)}\n` : changes.map(asText).join(''))
  return changes.length > 0 ? 1 : 0
}

/** Reads the arguments; a sentence where they don’t fit, empty where there are not two files. */
function optionsOf(args: readonly string[]): { files: readonly string[]; isJson: boolean } | string {
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: { json: { type: 'boolean' } },
    })
    return positionals.length === 2 ? { files: positionals, isJson: values.json === true } : ''
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
}

function asText({ act, name, where, parts }: EditLine): string {
  const told = parts.map(p => `          ${p.words}: ${p.before || '–'} → ${p.after || '–'}\n`)
  return `${act.padEnd(8)}  ${name}${where === '' ? '' : `, in ${where}`}\n${told.join('')}`
}
