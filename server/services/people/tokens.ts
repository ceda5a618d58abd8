import { createHash, randomBytes } from 'node:crypto'

/** A token that nobody guesses: 192 bits. */
export const newSecret = (): string => randomBytes(24).toString('base64url')

/** What is kept of a token: who reads the store can't use it. */
export const digestOf = (token: string): string => createHash('sha256').update(token).digest('base64url')

/** Letters and digits that nobody mistakes for one another. */
const ALPHABET = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789'

/** A code that people type: twelve letters and digits in threes, 59 bits. */
export function newTypedCode(): string {
  const letters = Array.from({ length: 12 }, () => ALPHABET[randomBelow(ALPHABET.length)])
  return [0, 4, 8].map(at => letters.slice(at, at + 4).join('')).join('-')
}

/** A typed code as it was made, however it was typed. */
export const readTypedCode = (typed: string): string =>
  (typed.toUpperCase().match(/[A-Z0-9]/g) ?? []).join('').replace(/(.{4})(?=.)/g, '$1-')

function randomBelow(end: number): number {
  for (;;) {
    const [byte = 0] = randomBytes(1)
    if (byte < 256 - (256 % end)) return byte % end
  }
}
