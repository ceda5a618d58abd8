import { readableDate } from '#core/expressions/dates'
import { describeResponse } from '#core/fill/describeResponse'
import { RULE_WORDS, rulesOf } from '#core/form/rules'
import type { Form } from '#core/form/definition'
import { turnName } from '#core/parties/turns'
import { placeName, type Place } from '#core/form/walk'
import { placeWords, turnWords } from './partWords'
import { collides, isMiss, type Finding } from '#core/prove/finding'

type Part = Finding['conflict'][number]

/** What a finding rests on: the rules concerned, and the answers of its witness as they read. */
export function useEvidence(finding: () => Finding) {
  const draft = useDraft()
  const rules = computed(() => (draft.form ? rulesOf(draft.form, draft.places) : []))

  function readPart(part: Part) {
    const place = draft.places.find(p => p.address === part.address)
    const rule = rules.value.find(
      r => place && r.place.address === place.address && r.kind === part.kind && r.index === part.index,
    )
    const words = rule ? RULE_WORDS[rule.kind] : ''
    const own = place ? `${place.number} ${placeName(place)}` : part.code
    const name = part.kind === 'promise' ? 'All of the form' : own
    return { rule, words, name, plain: rule ? '' : wordsWithoutRule(draft.form, part, place) }
  }
  /** The turn that it speaks of, as it is. */
  const turn = computed(() => {
    const { form } = draft
    const found = form?.turns?.find(t => t.code === finding().turn)
    return form && found ? { name: turnName(form, found), words: turnWords(form, found) } : null
  })
  const parts = computed(() => finding().conflict.map(readPart))
  const partsTitle = computed(() => {
    if (parts.value.length >= 2)
      return collides(finding()) ? 'The smallest set of rules that collide' : 'The rules concerned'
    if (finding().conflict[0]?.kind === 'promise') return 'The promise'
    return parts.value[0]?.rule ? 'The rule' : 'Where it stands'
  })

  const answers = useWitnessAnswers(finding)
  const isNearestMiss = computed(() => isMiss(finding()))
  return { parts, partsTitle, turn, answers, isNearestMiss }
}

/** The witness as it reads: what it answers, each entry named where it begins. */
function useWitnessAnswers(finding: () => Finding) {
  const draft = useDraft()
  const rehearsal = useRehearsal()
  /** `people[1].` as it reads: “Person 2”. */
  function entryName(path: string): string {
    const steps = [...path.matchAll(/(\w+)\[(\d+)\]/g)]
    const names = steps.map(([, code, index]) => {
      const group = draft.places.find(p => p.code === code)
      return `${group ? placeName(group) : code} ${Number(index) + 1}`
    })
    return names.join(', ')
  }
  const entryOf = (path: string) => path.slice(0, path.lastIndexOf('.') + 1)
  return computed(() => {
    const { witness } = finding()
    if (!rehearsal.plan || !witness) return []
    const lines = describeResponse(rehearsal.plan, witness, rehearsal.today)
    const answered = lines.filter(l => l.state === 'answered' && l.type !== 'value')
    return answered.map((l, i) => {
      const entry = entryOf(l.path)
      const isFirst = entry !== entryOf(answered[i - 1]?.path ?? '')
      const number = draft.places.find(p => p.code === l.code)?.number ?? ''
      return {
        path: l.path,
        name: `${number} ${l.label}`,
        value: l.text,
        entry: isFirst ? entryName(entry) : '',
      }
    })
  })
}

/** What limits each is in words, by its key. */
const LIMIT_WORDS: Readonly<Record<string, (limit: string) => string>> = {
  min: limit => `at least ${limit}`,
  max: limit => `at most ${limit}`,
  minLength: limit => `${limit} letters or more`,
  maxLength: limit => `${limit} letters at most`,
  pattern: limit => `the pattern ${limit}`,
  least: limit => `${limit} or more choices`,
  most: limit => `${limit} choices at most`,
}

/** The limits of a question as a sentence. */
function limitWords(node: object): string {
  const limits = new Map<string, unknown>(Object.entries(node))
  const words = Object.entries(LIMIT_WORDS).flatMap(([key, say]) =>
    limits.has(key) ? [say(readableDate(String(limits.get(key))))] : [],
  )
  return `An answer has ${words.join(', ')}`
}

/** What is said of a part that no rule was written for. */
function wordsWithoutRule(form: Form | null, part: Part, place: Place | undefined): string {
  if (place && part.kind === 'limits') return limitWords(place.node)
  if (form && place && part.kind === 'place') return placeWords(form, place)
  return WITHOUT_RULE[part.kind] ?? ''
}

/** The same of rules that always hold. */
const WITHOUT_RULE: Readonly<Partial<Record<Part['kind'], string>>> = {
  required: 'An answer is always required',
  route: 'A route that is always taken',
}
