import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hasWords } from './hasWords'

const word = fc.string({ unit: fc.constantFrom(...'abcé1.'), minLength: 1, maxLength: 5 })

describe('whether a text has the words that are typed', () => {
  it('has beginnings of its own words in any order and case', () => {
    fc.assert(
      fc.property(
        fc
          .array(word, { minLength: 1, maxLength: 5 })
          .chain(words =>
            fc.record({ words: fc.constant(words), typed: fc.shuffledSubarray(words), cut: fc.nat(4) }),
          ),
        ({ words, typed, cut }) => {
          const begun = typed.map(w => w.slice(0, cut + 1).toUpperCase())
          expect(hasWords(words.join(' '), begun.join('  '))).toBe(true)
        },
      ),
    )
  })

  it('lacks a word that is nowhere in it', () => {
    fc.assert(
      fc.property(fc.array(word), words => {
        expect(hasWords(words.join(' '), [...words, 'zzz'].join(' '))).toBe(false)
      }),
    )
  })

  it.each(['', '  '])('has nothing against “%s”', typed => {
    expect(hasWords('Length over all', typed)).toBe(true)
  })
})
