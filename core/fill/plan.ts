import { check, type ExpressionProblem, type Scope } from '../expressions/check'
import { compile, TODAY_SLOT, type Compiled } from '../expressions/compile'
import { parse, ExpressionError } from '../expressions/parse'
import { namesIn, type Expr } from '../expressions/tree'
import { BOOLEAN, type ValueType } from '../expressions/types'
import { FINISH, type Form } from '../form/definition'
import { valueTypeOf } from '../form/types'
import { outline, type Place, type PlaceOf } from '../form/walk'

/** A condition ready to run. A rule with an error is never true and never false: it is unknown. */
export interface PlannedRule { run: Compiled, expr: Expr | null, reading: Reading }
/** A rule's text, read: its tree, or what is wrong with it. */
export interface Reading { expr: Expr | null, syntax: ExpressionError | null, problems: readonly ExpressionProblem[] }
export interface PlannedCheck extends PlannedRule { message: string }

export interface PlannedPlace {
  place: Place
  shown: PlannedRule | null
  /** The place of the group around it, or -1. */
  parent: number
}
export interface PlannedQuestion extends PlannedPlace {
  place: PlaceOf<'question'>
  slot: number
  required: true | PlannedRule | null
  checks: readonly PlannedCheck[]
}
/** A route that leads somewhere; `index` is its place among the section's routes as written. */
export interface PlannedRoute { when: PlannedRule | null, target: number, index: number }
export interface PlannedSection {
  place: PlaceOf<'section'>
  shown: PlannedRule | null
  /** What stands in it, ordered so that everything comes after what its rule names. */
  steps: readonly (PlannedPlace | PlannedQuestion)[]
  questions: readonly PlannedQuestion[]
  routes: readonly PlannedRoute[]
}

/** A form made ready for filling: every rule compiled, every question with its slot. */
export interface Plan {
  form: Form
  places: readonly Place[]
  sections: readonly PlannedSection[]
  questions: readonly PlannedQuestion[]
  byCode: ReadonlyMap<string, PlannedQuestion>
  /** Questions and today: the number of slots. */
  size: number
  /** Every rule's text as it was read, by `section index:text`. */
  readings: ReadonlyMap<string, Reading>
}

export const isQuestion = (step: PlannedPlace | PlannedQuestion): step is PlannedQuestion => step.place.kind === 'question'

/** What names mean at a place of the form: earlier questions and those of the same section; with the place's own section. */
export function scopeAt(form: Form, places: readonly Place[], section: number): Scope {
  const questions = new Map<string, PlaceOf<'question'>>()
  for (const p of places) if (p.kind === 'question' && !questions.has(p.code)) questions.set(p.code, p)
  return scopeOver(form, questions, section, new Map())
}

/** The same over a prepared index, with the types of the questions kept between calls. */
export function scopeOver(form: Form, questions: ReadonlyMap<string, PlaceOf<'question'>>, section: number, types: Map<string, ValueType>): Scope {
  return {
    lookup: (name) => {
      const place = questions.get(name)
      if (!place) return undefined
      let type = types.get(name)
      if (!type) types.set(name, type = valueTypeOf(place.node, form))
      return { type, later: place.section > section }
    },
    names: () => [...questions.values()].filter(p => p.section <= section).map(p => p.code),
  }
}

/** Prepares a form for filling. Faults don't hinder it: a faulty rule is unknown, a faulty route is passed over. */
export function planOf(form: Form): Plan {
  const places = outline(form)
  const slots = new Map<string, number>()
  const index = new Map<string, PlaceOf<'question'>>()
  let size = TODAY_SLOT + 1
  const slotByPlace = places.map((p) => {
    if (p.kind !== 'question') return -1
    const slot = size++
    if (!slots.has(p.code)) {
      slots.set(p.code, slot)
      index.set(p.code, p)
    }
    return slot
  })
  const types = new Map<string, ValueType>()
  const readings = new Map<string, Reading>()
  const scopes = form.sections.map((_, i) => scopeOver(form, index, i, types))
  const rule = (text: string, section: number): PlannedRule => {
    const reading = readRule(text, scopes[section])
    const { expr } = reading
    readings.set(`${section}:${text}`, reading)
    return { reading, expr, run: expr ? compile(expr, name => slots.get(name)) : () => null }
  }
  const optional = (text: string | undefined, section: number) => text === undefined ? null : rule(text, section)
  const questions: PlannedQuestion[] = []
  const stepsBySection: (PlannedPlace | PlannedQuestion)[][] = form.sections.map(() => [])
  for (const place of places) {
    if (place.kind === 'section') continue
    const shown = optional(place.node.shownWhen, place.section)
    const parent = place.groups[place.groups.length - 1]?.order ?? -1
    let step: PlannedPlace | PlannedQuestion = { place, shown, parent }
    if (place.kind === 'question') {
      const { required, validWhen = [] } = place.node
      step = {
        place, shown, parent,
        slot: slotByPlace[place.order] ?? -1,
        required: required === true ? true : optional(required, place.section),
        checks: validWhen.map(c => ({ ...rule(c.rule, place.section), message: c.message })),
      }
      questions.push(step)
    }
    stepsBySection[place.section]?.push(step)
  }
  const sectionIndex = new Map(form.sections.map((s, i) => [s.code, i]))
  const sections = places.filter(p => p.kind === 'section').map((place): PlannedSection => {
    const steps = stepsBySection[place.section] ?? []
    return {
      place,
      shown: optional(place.node.shownWhen, place.section),
      steps: ordered(steps),
      questions: questions.filter(q => q.place.section === place.section),
      routes: (place.node.routes ?? []).flatMap((route, index) => {
        const target = route.to === FINISH && !sectionIndex.has(FINISH) ? form.sections.length : sectionIndex.get(route.to)
        return target === undefined || target <= place.section ? [] : [{ when: optional(route.when, place.section), target, index }]
      }),
    }
  })
  const byCode = new Map<string, PlannedQuestion>()
  for (const q of questions) if (!byCode.has(q.place.code)) byCode.set(q.place.code, q)
  return { form, places, sections, questions, byCode, size, readings }
}

/** Reads a rule where it stands; with an error of any kind it has no tree. */
export function readRule(text: string, scope: Scope | undefined): Reading {
  try {
    const expr = parse(text)
    const problems = scope ? check(expr, scope, BOOLEAN).problems : []
    return { expr: problems.length === 0 ? expr : null, syntax: null, problems }
  }
  catch (error) {
    if (error instanceof ExpressionError) return { expr: null, syntax: error, problems: [] }
    throw error
  }
}

/** Orders the steps of a section so that each comes after its group and after what its own rule names; else as written. */
function ordered(steps: readonly (PlannedPlace | PlannedQuestion)[]): (PlannedPlace | PlannedQuestion)[] {
  const byOrder = new Map(steps.map(s => [s.place.order, s]))
  const byCode = new Map(steps.filter(isQuestion).map(s => [s.place.code, s] as const).reverse())
  const done = new Set<PlannedPlace>()
  const result: (PlannedPlace | PlannedQuestion)[] = []
  for (const start of steps) {
    // An explicit stack: long chains of rules must not overflow.
    const open = [start]
    const entered = new Set<PlannedPlace>()
    while (open.length > 0) {
      const step = open[open.length - 1]
      if (!step || done.has(step)) {
        open.pop()
        continue
      }
      const waits = entered.has(step) ? [] : needsOf(step, byOrder, byCode).filter(n => !done.has(n) && !entered.has(n))
      entered.add(step)
      if (waits.length > 0) {
        open.push(...waits.reverse())
        continue
      }
      open.pop()
      done.add(step)
      result.push(step)
    }
  }
  return result
}

function needsOf(step: PlannedPlace, byOrder: ReadonlyMap<number, PlannedPlace>, byCode: ReadonlyMap<string, PlannedQuestion>): (PlannedPlace | PlannedQuestion)[] {
  const parent = byOrder.get(step.parent)
  const named = step.shown?.expr ? namesIn(step.shown.expr).flatMap(name => byCode.get(name) ?? []) : []
  return parent ? [parent, ...named] : named
}
