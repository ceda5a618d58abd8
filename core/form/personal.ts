import { isRecord, type Answer, type Answers } from './answers'
import type { Form } from './definition'
import { rulesOf } from './rules'
import { memberNamesReader, namesUsed } from './threads'
import { listPlaces, type Place } from './walk'

/** The codes of the questions that are marked as personal: those whose answers tell of a person. */
export function personalCodes(form: Form): Set<string> {
  const personal = listPlaces(form).filter(p => p.kind === 'question' && p.node.personal)
  return new Set(personal.map(p => p.code))
}

/** Answers to a form without those to the questions with some codes, in entries too. */
export function withoutAnswers(form: Form, answers: Answers, codes: ReadonlySet<string>): Answers {
  const groups = new Set(listPlaces(form).flatMap(p => (p.kind === 'group' ? [p.code] : [])))
  return strip(answers, codes, groups)
}

function strip(answers: Answers, codes: ReadonlySet<string>, groups: ReadonlySet<string>): Answers {
  const kept = Object.entries(answers).filter(([code]) => !codes.has(code))
  return Object.fromEntries(
    kept.map(([code, answer]) => [code, groups.has(code) ? stripEntries(answer, codes, groups) : answer]),
  )
}

function stripEntries(entries: Answer, codes: ReadonlySet<string>, groups: ReadonlySet<string>): Answer {
  if (!Array.isArray(entries)) return entries
  return entries.map((entry: Answer) => (isRecord(entry) ? strip(entry, codes, groups) : entry))
}

/** What is shown by a rule over personal answers, apart from personal questions themselves: once those answers are gone, it reads as not asked. */
export function listRestingOnPersonal(form: Form): Place[] {
  const places = listPlaces(form)
  const codes = personalCodes(form)
  const membersOf = memberNamesReader(places)
  const isResting = (text: string) => [...namesUsed(text), ...membersOf(text)].some(name => codes.has(name))
  const resting = rulesOf(form, places).filter(
    rule => rule.kind === 'shownWhen' && !codes.has(rule.place.code) && isResting(rule.text),
  )
  return [...new Set(resting.map(rule => rule.place))]
}
