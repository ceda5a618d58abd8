import { FUNCTIONS } from '#core/expressions/functions'
import { typeName } from '#core/expressions/types'
import { nodeText, type Place } from '#core/form/walk'

/** What could stand where an expression is being typed: a question, a choice's code, or a function. */
export interface Suggestion {
  text: string
  /** What it is called, or what it takes. */
  words: string
  kind: 'question' | 'choice' | 'function'
}
export interface Suggested {
  /** How many letters before the caret it would stand in place of. */
  typed: number
  options: Suggestion[]
}

const QUOTED = /([a-z_][a-z0-9_]*)\s*(?:=|!=|in\s*[[(](?:\s*"[^"]*"\s*,)*|,)\s*"([^"]*)$/i
const WORDS_BETWEEN = /^.*\b(?:and|or|not|in|if|then|else|between|satisfies)\s+/i

/** Completes an expression at a place of the form. */
export function useCompletions(place: () => Place) {
  const draft = useDraft()
  const fits = (typed: string, ...texts: string[]) =>
    texts.some(t => t.toLowerCase().includes(typed.toLowerCase()))

  function choicesOf(code: string, typed: string): Suggestion[] {
    const type = draft.names?.typeOf(code)
    const single = type?.kind === 'list' ? type.of : type
    const choices = single?.kind === 'code' ? [...single.choices] : []
    return choices
      .filter(([c, label]) => fits(typed, c, label))
      .map(([c, label]) => ({ text: c, words: label, kind: 'choice' }))
  }

  function namesLike(typed: string): Suggestion[] {
    const { names } = draft
    if (!names) return []
    return [...names.at(place()).names()].flatMap((code): Suggestion[] => {
      const found = draft.places.find(p => p.code === code)
      const label = found ? nodeText(found.node).text : ''
      if (!fits(typed, code, label)) return []
      return [{ text: code, words: `${label} · ${typeName(names.typeOf(code))}`, kind: 'question' }]
    })
  }

  const functionsLike = (typed: string): Suggestion[] =>
    [...FUNCTIONS].flatMap(([name, f]): Suggestion[] => {
      const takes = f.parameters.map(p => p.name).join(', ')
      return fits(typed, name) ? [{ text: `${name}(`, words: takes, kind: 'function' }] : []
    })

  return (before: string): Suggested => {
    const quoted = QUOTED.exec(before)
    if (quoted) {
      const typed = quoted[2] ?? ''
      return { typed: typed.length, options: choicesOf(quoted[1] ?? '', typed) }
    }
    const word = /[a-z_][a-z0-9_ ]*$/i.exec(before)?.[0].replace(WORDS_BETWEEN, '').trimStart() ?? ''
    const options = word === '' ? [] : [...namesLike(word), ...functionsLike(word)]
    return { typed: word.length, options }
  }
}
