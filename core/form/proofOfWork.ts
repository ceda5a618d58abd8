import { sha256 } from '@noble/hashes/sha2.js'
import { utf8ToBytes } from '@noble/hashes/utils.js'

/** Tries until others are let in. */
const AT_ONCE = 2_000

/**
 * Whether a proof of work (hashcash, Back 2002; here with SHA-256) was found for just this sending: the first 16 bits of the digest are zero,
 * which takes about 65,000 tries, some tenths of a second in a browser.
 */
export function isProof(sendingKey: string, proof: string): boolean {
  const [first = 1, second = 1] = sha256(utf8ToBytes(`${sendingKey} ${proof}`))
  return first === 0 && second === 0
}

/** Looks for the proof of a sending; nothing else waits meanwhile. */
export async function findProof(sendingKey: string): Promise<string> {
  for (let tries = 0; ; tries++) {
    if (isProof(sendingKey, String(tries))) return String(tries)
    if (tries % AT_ONCE === 0) await new Promise(resolve => setTimeout(resolve))
  }
}
