import { evaluate } from 'feelin'
import { chromium } from '@playwright/test'
import { Bench } from 'tinybench'
import { build } from 'vite'
import { compile } from '../../core/expressions/compile'
import { parse } from '../../core/expressions/parse'
import type { Value } from '../../core/expressions/types'
import { fill } from '../../core/fill/fill'
import { planOf } from '../../core/fill/plan'
import type { Answer } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { Edit } from '../../core/form/edits'
import type { QuestionType } from '../../core/form/questions'
import { prove } from '../../core/prove/prove'
import { largeForm } from './forms'
import { editRules } from './ruleEdits'
import { realForm } from './real/realForm'
import { collecting } from './collect'
import { documents } from './documents'
import { limitedOption } from './limited'
import { offlineOutbox } from './outbox'
import { listEditor, longLists } from './lists'
import { maps } from './map'
import { answeringKeystroke, median, withApplication, writingKeystroke } from './pages'
import { respondentPage } from './respondentPage'
import { serving } from './server'
import { versions } from './versions'

const EDITS = 40
const TODAY = '2026-11-24'
const ANSWERS: Partial<Record<QuestionType, Answer>> = {
  text: 'x',
  integer: 30,
  decimal: 20.5,
  yesNo: true,
  choice: 'wood',
  date: '2026-05-01',
}
const say = (what: string, value: string, goal: string) =>
  console.log(`${what.padEnd(64)} ${value.padStart(14)}   goal ${goal}`)

/** A 500-question form, filled, evaluated anew after one answer changes. */
function evaluation() {
  const plan = planOf(largeForm(500))
  const answers: Record<string, Answer> = {}
  for (const q of plan.questions) answers[q.place.code] = ANSWERS[q.place.node.type] ?? null
  const times = Array.from({ length: 400 }, (_, i) => {
    const begun = performance.now()
    fill(plan, { ...answers, q1: i % 50 }, TODAY)
    return performance.now() - begun
  })
  say(
    'evaluate a 500-question form after one answer (median)',
    `${median(times).toFixed(3)} ms`,
    'under 2 ms',
  )
}

const CONDITIONS: readonly [string, (a: Record<string, Value>) => boolean][] = [
  ['hull = "wood"', a => a.hull === 'wood'],
  [
    'hull in ["wood", "composite"] and loa > 12',
    a => (a.hull === 'wood' || a.hull === 'composite') && a.loa !== null && (a.loa as number) > 12,
  ],
  [
    'insured = true or (loa > 8 and loa <= 20)',
    a => a.insured === true || (a.loa !== null && (a.loa as number) > 8 && (a.loa as number) <= 20),
  ],
  ['not(hull = "steel") and insured = false', a => !(a.hull === 'steel') && a.insured === false],
  [
    'lift_on >= @"2026-05-01" and loa between 5 and 15',
    a =>
      a.lift_on !== null &&
      (a.lift_on as string) >= '2026-05-01' &&
      a.loa !== null &&
      (a.loa as number) >= 5 &&
      (a.loa as number) <= 15,
  ],
]

/** The same conditions compiled, by hand, and by an interpreter. */
async function conditions() {
  const names = ['hull', 'loa', 'insured', 'lift_on']
  const states = Array.from({ length: 64 }, (_, i): Record<string, Value> => ({
    hull: ['wood', 'steel', 'composite', null][i % 4] ?? null,
    loa: i % 7 === 0 ? null : i % 25,
    insured: i % 3 === 0 ? null : i % 2 === 0,
    lift_on: i % 5 === 0 ? null : `2026-0${1 + (i % 9)}-01`,
  }))
  const slots = states.map(s => [TODAY, ...names.map(n => s[n] ?? null)])
  const compiled = CONDITIONS.map(([text]) => compile(parse(text), name => names.indexOf(name) + 1))
  const bench = new Bench({ time: 500 })
  let hits = 0
  bench.add('compiled', () => {
    for (const run of compiled) for (const s of slots) if (run(s) === true) hits += 1
  })
  bench.add('by hand', () => {
    for (const [, run] of CONDITIONS) for (const s of states) if (run(s)) hits += 1
  })
  bench.add('interpreter', () => {
    for (const [text] of CONDITIONS) for (const s of states) if (evaluate(text, s).value === true) hits += 1
  })
  await bench.run()
  const time = (name: string) => {
    const result = bench.tasks.find(t => t.name === name)?.result
    return result && 'latency' in result ? result.latency.p50 : Number.NaN
  }
  const each = states.length * CONDITIONS.length
  say('one compiled condition (median)', `${((time('compiled') / each) * 1e6).toFixed(1)} ns`, '-')
  say(
    'compiled, against the same written by hand',
    `${(time('compiled') / time('by hand')).toFixed(2)} ×`,
    'within 3 ×',
  )
  say(
    'compiled, against a FEEL interpreter',
    `${(time('interpreter') / time('compiled')).toFixed(0)} × faster`,
    '20 × faster',
  )
  if (hits === 0) throw new Error('No condition was true: the measurement is wrong.')
}

function proving() {
  for (const [what, formOf] of [
    ['one kind of rule', largeForm],
    ['like real ones', realForm],
  ] as const)
    for (const questions of [100, 200, 500, 1000, 2000, 4000]) {
      const form = formOf(questions)
      const begun = performance.now()
      const { tally } = prove(form, TODAY)
      const time = performance.now() - begun
      say(
        `prove ${questions} questions ${what}, ${tally.rules} rules, ${tally.undecided} undecided, in Node`,
        `${time.toFixed(0)} ms`,
        '-',
      )
    }
}

/** The same in a worker of the browser: from nothing and after edits. */
async function provingInWorker() {
  const built = await build({
    configFile: false,
    logLevel: 'error',
    build: { write: false, lib: { entry: 'tests/bench/inWorker.ts', formats: ['iife'], name: 'inWorker' } },
  })
  const output = Array.isArray(built) ? built[0] : built
  const code = output && 'output' in output ? output.output[0].code : ''
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH || '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  const page = await browser.newPage()
  /** Each time in a new worker, so that the first proof is as the first in a new tab. */
  const timesOf = (work: { form: Form; times: number; edits: Edit[] }) =>
    page.evaluate(
      ([source, given]) =>
        new Promise<{ whole: number[]; edited: number[] }>(done => {
          const worker = new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' })))
          worker.onmessage = ({ data }) => done(data)
          worker.postMessage(JSON.parse(given))
        }),
      [code, JSON.stringify(work)] as const,
    )
  const inMs = (time: number) => `${time.toFixed(0)} ms`
  const afterEdits = async (kind: string, edits: Edit[], form: Form, goal: string) => {
    const { edited } = await timesOf({ form, times: 0, edits })
    const most = inMs(Math.max(...edited))
    say(`the same after an edit of ${kind} (median; most ${most})`, inMs(median(edited)), goal)
  }
  for (const [form, what, goal] of [
    [largeForm(200), '200 questions with one kind of rule', 'under 150 ms'],
    [realForm(500), '500 questions like real ones', 'under 1,500 ms'],
    [realForm(2000), '2,000 questions like real ones', 'under 8,000 ms'],
  ] as const) {
    const { whole } = await timesOf({ form, times: 3, edits: [] })
    say(`prove ${what} in the browser’s worker, first time`, inMs(whole[0] ?? 0), goal)
    say(`prove ${what} in the browser’s worker, again`, inMs(median(whole.slice(1))), goal)
    await afterEdits('a rule', editRules(form, EDITS, false), form, 'under 50 ms')
    if (form.promises) await afterEdits('a promise', editRules(form, EDITS, true), form, 'under 200 ms')
  }
  await browser.close()
}

async function pages() {
  await withApplication(async page => {
    await respondentPage(page, say)
    await answeringKeystroke(page, say)
    await writingKeystroke(page, say)
    await listEditor(page, say)
  })
}

/** What is measured, by name: `npm run bench -- prove pages` measures only these. */
const PARTS: Readonly<Record<string, () => void | Promise<void>>> = {
  evaluate: evaluation,
  conditions,
  prove: proving,
  lists: () => longLists(say),
  map: () => maps(say),
  versions: () => versions(say),
  worker: provingInWorker,
  pages,
  server: () => serving(say),
  limited: () => limitedOption(say),
  collect: () => collecting(say),
  documents: () => documents(say),
  outbox: () => offlineOutbox(say),
}
const named = process.argv.slice(2)
for (const name of named)
  if (!(name in PARTS))
    throw new Error(`There is no part “${name}”; there are ${Object.keys(PARTS).join(', ')}.`)
for (const [name, measure] of Object.entries(PARTS))
  if (named.length === 0 || named.includes(name)) await measure()
