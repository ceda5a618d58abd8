import { parseArgs } from 'node:util'
import type { z } from 'zod'
import { describeEdits } from '../core/form/describeEdits'
import type { Form } from '../core/form/definition'
import { editsBetween } from '../core/form/editsBetween'
import { listMeaningChanges, sayMeaning } from '../core/lists/meanings'
import { decideEffects } from '../core/prove/effects/effects'
import { decidePromises } from '../core/prove/effects/keptPromises'
import { sayEffect, sayPromise } from '../core/prove/effects/sayEffect'
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
  const output = {
    changes,
    ...effectsOf(before.form, after.form),
    promises: promisesOf(before.form, after.form),
    meanings: meaningsOf(before.form, after.form),
  }
  process.stdout.write(isJson ? `${JSON.stringify(output, null, 2)}\n` : asTexts(output))
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

type Output = z.infer<typeof DiffOutput>

/** What is done otherwise for whom, decided for all possible answers. */
function effectsOf(before: Form, after: Form): Pick<Output, 'effects' | 'same'> {
  const today = new Date().toISOString().slice(0, 10)
  const all = decideEffects(before, after, today)
  const effects = all.flatMap((effect): Output['effects'] => {
    const { outcome, kind, code, address, option, witness, today: on, was, is } = effect
    if (outcome === 'same') return []
    return [
      { kind, code, address, option, outcome, sentence: sayEffect(effect), witness, today: on, was, is },
    ]
  })
  return { effects, same: all.length - effects.length }
}

function promisesOf(before: Form, after: Form): Output['promises'] {
  const today = new Date().toISOString().slice(0, 10)
  return decidePromises(before, after, today).map(kept => {
    const { code, outcome, witness, today: on } = kept
    return { code, outcome, sentence: sayPromise(kept), witness, today: on }
  })
}

const meaningsOf = (before: Form, after: Form): Output['meanings'] =>
  listMeaningChanges(before, after).map(change => {
    const { code, address, option, isCertain } = change
    return { code, address, option, sentence: sayMeaning(change), isCertain }
  })

function asTexts({ changes, effects, promises, meanings, same }: Output): string {
  if (changes.length === 0) return ''
  const withAnswers = (head: string) => (line: Pick<Output['promises'][number], 'sentence' | 'witness'>) => {
    const answers = line.witness ? `          with ${JSON.stringify(line.witness)}\n` : ''
    return `${head.padEnd(8)}  ${line.sentence}\n${answers}`
  }
  const told = [
    ...effects.map(withAnswers('for whom')),
    ...promises.map(withAnswers('promise')),
    ...meanings.map(({ sentence }) => `code      ${sentence}\n`),
  ]
  const rest = `same      ${same} of ${same + effects.length}, for everyone\n`
  return [...changes.map(asText), ...told, rest].join('')
}

function asText({ act, name, where, parts }: Output['changes'][number]): string {
  const told = parts.map(p => `          ${p.words}: ${p.before || '–'} → ${p.after || '–'}\n`)
  return `${act.padEnd(8)}  ${name}${where === '' ? '' : `, in ${where}`}\n${told.join('')}`
}
