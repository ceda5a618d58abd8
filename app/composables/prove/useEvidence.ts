import { describeResponse } from '#core/fill/describeResponse'
import { RULE_WORDS, rulesOf } from '#core/form/rules'
import { placeName } from '#core/form/walk'
import { collides, isMiss, type Finding } from '#core/prove/finding'

type Part = Finding['conflict'][number]

/** What a finding rests on: the rules concerned, and the answers of its witness as they read. */
export function useEvidence(finding: () => Finding) {
  const draft = useDraft()
  const rehearsal = useRehearsal()
  const rules = computed(() => (draft.form ? rulesOf(draft.form, draft.places) : []))

  function readPart(part: Part) {
    const place = draft.places.find(p => p.address === part.address)
    const rule = rules.value.find(
      r => place && r.place.address === place.address && r.kind === part.kind && r.index === part.index,
    )
    const words = part.kind === 'place' || part.kind === 'limits' ? '' : RULE_WORDS[part.kind]
    const own = place ? `${place.number} ${placeName(place)}` : part.code
    const name = part.kind === 'promise' ? 'All of the form' : own
    const limits = part.kind === 'limits' && place ? limitWords(place.node) : null
    return { rule, words, name, plain: rule ? '' : (limits ?? WITHOUT_RULE[part.kind] ?? '') }
  }
  const parts = computed(() => finding().conflict.map(readPart))
  const partsTitle = computed(() => {
    if (parts.value.length >= 2)
      return collides(finding()) ? 'The smallest set of rules that collide' : 'The rules concerned'
    return finding().conflict[0]?.kind === 'promise' ? 'The promise' : 'Where it stands'
  })

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
  /** The witness as it reads: what it answers, each entry named where it begins. */
  const answers = computed(() => {
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
  const isNearestMiss = computed(() => isMiss(finding()))
  return { parts, partsTitle, answers, isNearestMiss }
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
    limits.has(key) ? [say(String(limits.get(key)))] : [],
  )
  return `An answer has ${words.join(', ')}`
}

/** What is said of a part of the conflict that no rule was written for. */
const WITHOUT_RULE: Readonly<Partial<Record<Part['kind'], string>>> = {
  required: 'An answer is always required',
  route: 'A route that is always taken',
}
