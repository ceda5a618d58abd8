/**
 * Patterns as automata: a part of the RE2 syntax (the one that answers are checked by) read into a regular expression, which is run
 * letter by letter by its derivatives (Brzozowski 1964; Owens, Reppy and Turon 2009).
 */

/** Letters by code point: disjoint ranges, in order. */
export type Letters = readonly (readonly [number, number])[]
export const isIn = (letters: Letters, letter: number) =>
  letters.some(([low, high]) => low <= letter && letter <= high)
const LAST_LETTER = 0x10ffff
const EVERY: Letters = [[0, LAST_LETTER]]

type Regular =
  | { kind: 'none' | 'empty'; id: number; nullable: boolean }
  | { kind: 'letter'; id: number; nullable: false; letters: Letters }
  | { kind: 'then'; id: number; nullable: boolean; first: Regular; rest: Regular }
  | { kind: 'either'; id: number; nullable: boolean; parts: readonly Regular[] }
  | { kind: 'many'; id: number; nullable: true; of: Regular }

/** What reads a text letter by letter and then says whether something holds of it: states are numbers, lengths in characters. */
export interface Automaton {
  start: number
  step: (state: number, letter: number) => number
  holds: (state: number, length: number) => boolean
  sets: readonly Letters[]
}

/** A pattern that runs over texts: states are numbers. */
export interface TextPattern {
  start: number
  step: (state: number, letter: number) => number
  accepts: (state: number) => boolean
  /** The sets of letters that it tells apart. */
  sets: readonly Letters[]
}

/** How large a pattern may be when its counts are written out. */
const MOST_PARTS = 2_000
const MOST_STATES = 5_000

/** Too large, or written with what is not known here. */
class Unread extends Error {}

/** What an alternative is made of. */
function partsOf(part: Regular): readonly Regular[] {
  if (part.kind === 'either') return part.parts
  return part.kind === 'none' ? [] : [part]
}

/** Makes expressions, each but once, so that equal ones are the same state. */
class Makers {
  private readonly known = new Map<string, Regular>()
  readonly all: Regular[] = []
  readonly none = this.make('none', id => ({ kind: 'none', id, nullable: false }))
  readonly empty = this.make('empty', id => ({ kind: 'empty', id, nullable: true }))
  readonly anything = this.many(this.letter(EVERY))

  private make(key: string, create: (id: number) => Regular): Regular {
    const known = this.known.get(key)
    if (known) return known
    if (this.all.length >= MOST_STATES) throw new Unread()
    const made = create(this.all.length)
    this.all.push(made)
    this.known.set(key, made)
    return made
  }

  letter(letters: Letters): Regular {
    return letters.length === 0
      ? this.none
      : this.make(`l${letters.join()}`, id => ({ kind: 'letter', id, nullable: false, letters }))
  }

  then(first: Regular, rest: Regular): Regular {
    if (first.kind === 'none' || rest.kind === 'none') return this.none
    if (first.kind === 'empty') return rest
    if (rest.kind === 'empty') return first
    if (first.kind === 'then') return this.then(first.first, this.then(first.rest, rest))
    return this.make(`t${first.id},${rest.id}`, id => ({
      kind: 'then',
      id,
      nullable: first.nullable && rest.nullable,
      first,
      rest,
    }))
  }

  either(parts: readonly Regular[]): Regular {
    const flat = [...new Set(parts.flatMap(partsOf))].sort((a, b) => a.id - b.id)
    if (flat.includes(this.anything)) return this.anything
    const [only] = flat
    if (only === undefined) return this.none
    return flat.length === 1
      ? only
      : this.make(`e${flat.map(p => p.id).join()}`, id => ({
          kind: 'either',
          id,
          nullable: flat.some(p => p.nullable),
          parts: flat,
        }))
  }

  many(of: Regular): Regular {
    if (of.kind === 'none' || of.kind === 'empty') return this.empty
    return of.kind === 'many' ? of : this.make(`m${of.id}`, id => ({ kind: 'many', id, nullable: true, of }))
  }

  /** What is left to be matched after a letter. */
  after(regular: Regular, letter: number): Regular {
    switch (regular.kind) {
      case 'none':
      case 'empty':
        return this.none
      case 'letter':
        return regular.letters.some(([low, high]) => low <= letter && letter <= high) ? this.empty : this.none
      case 'then': {
        const first = this.then(this.after(regular.first, letter), regular.rest)
        return regular.first.nullable ? this.either([first, this.after(regular.rest, letter)]) : first
      }
      case 'either':
        return this.either(regular.parts.map(p => this.after(p, letter)))
      case 'many':
        return this.then(this.after(regular.of, letter), regular)
    }
  }
}

/**
 * A pattern as an automaton over code points.
 * @param whole whether the whole text must match, as for the form of an answer; else a part of it is enough, as for `matches()`
 * @returns null for what is too large, or uses more of the syntax than is known here (flags, word boundaries, classes by name, anchors inside)
 */
export function textPattern(source: string, whole: boolean): TextPattern | null {
  try {
    const makers = new Makers()
    const start = new Reader(source, makers).read(whole)
    const sets = makers.all.flatMap(r => (r.kind === 'letter' ? [r.letters] : []))
    const next = new Map<string, number>()
    return {
      start: start.id,
      sets,
      accepts: state => makers.all[state]?.nullable ?? false,
      step: (state, letter) => {
        const key = `${state},${letter}`
        const known = next.get(key)
        if (known !== undefined) return known
        const { id } = makers.after(makers.all[state] ?? makers.none, letter)
        next.set(key, id)
        return id
      },
    }
  } catch (error) {
    if (error instanceof Unread) return null
    throw error
  }
}

/** What `step` of a pattern throws when its states become too many. */
export const isTooLarge = (error: unknown): boolean => error instanceof Unread

const range = (from: string, to = from): readonly [number, number] => [
  from.codePointAt(0) ?? 0,
  to.codePointAt(0) ?? 0,
]
const DIGITS: Letters = [range('0', '9')]
const WORD: Letters = [range('0', '9'), range('A', 'Z'), range('_'), range('a', 'z')]
const SPACES: Letters = [
  [9, 10],
  [12, 13],
  [32, 32],
]
/** What RE2 calls by a letter: ASCII only. */
const CLASSES: Partial<Record<string, Letters>> = { d: DIGITS, w: WORD, s: SPACES }
const CONTROLS: Partial<Record<string, number>> = { t: 9, n: 10, v: 11, f: 12, r: 13, a: 7 }

const merged = (letters: Letters): Letters => {
  const result: [number, number][] = []
  for (const [low, high] of [...letters].sort((a, b) => a[0] - b[0])) {
    const last = result[result.length - 1]
    if (last && low <= last[1] + 1) last[1] = Math.max(last[1], high)
    else result.push([low, high])
  }
  return result
}
const others = (letters: Letters): Letters => {
  const result: [number, number][] = []
  let from = 0
  for (const [low, high] of merged(letters)) {
    if (low > from) result.push([from, low - 1])
    from = high + 1
  }
  return from <= LAST_LETTER ? [...result, [from, LAST_LETTER]] : result
}

/** The only letter of a set; a set of several is none. */
function singleOf([first, ...more]: Letters): number {
  if (!first || more.length > 0 || first[0] !== first[1]) throw new Unread()
  return first[0]
}

class Reader {
  private readonly letters: readonly string[]
  private at = 0
  private parts = 0

  constructor(
    source: string,
    private readonly makers: Makers,
  ) {
    this.letters = [...source]
  }

  /** The whole pattern: a part of a text is found after and before anything, but where a branch says it begins or ends it. */
  read(whole: boolean): Regular {
    const { makers } = this
    const branches: Regular[] = []
    do {
      const fromStart = this.take('^')
      const body = this.sequence()
      const toEnd = this.take('$')
      branches.push(
        [
          ...(whole || fromStart ? [] : [makers.anything]),
          body,
          ...(whole || toEnd ? [] : [makers.anything]),
        ].reduceRight((rest, part) => makers.then(part, rest), makers.empty),
      )
    } while (this.take('|'))
    if (this.at < this.letters.length) throw new Unread()
    return makers.either(branches)
  }

  private take(letter: string): boolean {
    if (this.letters[this.at] !== letter) return false
    this.at += 1
    return true
  }

  private sequence(): Regular {
    const parts: Regular[] = []
    for (
      let next = this.letters[this.at];
      next !== undefined && !'|)$'.includes(next);
      next = this.letters[this.at]
    )
      parts.push(this.repeated())
    return parts.reduceRight((rest, part) => this.makers.then(part, rest), this.makers.empty)
  }

  private either(): Regular {
    const branches = [this.sequence()]
    while (this.take('|')) branches.push(this.sequence())
    return this.makers.either(branches)
  }

  private repeated(): Regular {
    const one = this.one()
    const limits = this.limits()
    if (!limits) return one
    this.take('?') // as few as will do: the same texts match
    if (this.limits()) throw new Unread()
    const [least, most] = limits
    this.parts += Math.max(least, most ?? 0)
    if (this.parts > MOST_PARTS) throw new Unread()
    const { makers } = this
    let result = most === null ? makers.many(one) : makers.empty
    for (let i = least; i < (most ?? 0); i++) result = makers.either([makers.empty, makers.then(one, result)])
    for (let i = 0; i < least; i++) result = makers.then(one, result)
    return result
  }

  private limits(): readonly [number, number | null] | null {
    if (this.take('*')) return [0, null]
    if (this.take('+')) return [1, null]
    if (this.take('?')) return [0, 1]
    // What does not read as a count is a brace.
    const counted = /^\{(\d+)(?:(,)(\d*))?\}/.exec(this.letters.slice(this.at, this.at + 16).join(''))
    if (!counted) return null
    this.at += counted[0].length
    const least = Number(counted[1])
    if (counted[2] === undefined) return [least, least]
    return [least, counted[3] ? Number(counted[3]) : null]
  }

  private one(): Regular {
    this.parts += 1
    if (this.parts > MOST_PARTS) throw new Unread()
    const letter = this.letters[this.at] ?? ''
    this.at += 1
    if (letter === '(') {
      if (this.take('?') && !this.take(':')) throw new Unread()
      const inner = this.either()
      if (!this.take(')')) throw new Unread()
      return inner
    }
    if (letter === '[') return this.makers.letter(this.set())
    if (letter === '.') return this.makers.letter(others([[10, 10]]))
    if ('*+?^'.includes(letter)) throw new Unread()
    return this.makers.letter(letter === '\\' ? this.escape() : [range(letter)])
  }

  private escape(): Letters {
    const letter = this.letters[this.at] ?? ''
    this.at += 1
    const named = CLASSES[letter.toLowerCase()]
    if (named) return letter === letter.toLowerCase() ? named : others(named)
    const control = CONTROLS[letter]
    if (control !== undefined) return [[control, control]]
    if (letter === '' || /[0-9A-Za-z]/.test(letter) || letter > '~') throw new Unread()
    return [range(letter)]
  }

  /** One member of a set: a letter, a class, or all from one letter to another. */
  private member(): Letters {
    const letter = this.letters[this.at]
    if (letter === undefined || (letter === '[' && this.letters[this.at + 1] === ':')) throw new Unread()
    const low = this.letterOrClass()
    const isRange = this.letters[this.at] === '-' && this.letters[this.at + 1] !== ']'
    if (!isRange || low.length === 0) return low
    this.at += 1
    const [first, last] = [singleOf(low), singleOf(this.letterOrClass())]
    if (last < first) throw new Unread()
    return [[first, last]]
  }

  private letterOrClass(): Letters {
    const letter = this.letters[this.at] ?? ''
    this.at += 1
    return letter === '\\' ? this.escape() : [range(letter)]
  }

  /** A set in brackets. */
  private set(): Letters {
    const isOther = this.take('^')
    const found: (readonly [number, number])[] = []
    do found.push(...this.member())
    while (!this.take(']'))
    return isOther ? others(found) : merged(found)
  }
}
