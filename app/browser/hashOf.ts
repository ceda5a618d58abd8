import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'

/** The SHA-256 of a file (FIPS 180-4), in hexadecimal digits; piece by piece, so that a large one is never held as a whole. */
export async function hashOf(file: Blob): Promise<string> {
  const hash = sha256.create()
  const reader = file.stream().getReader()
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return bytesToHex(hash.digest())
    hash.update(value)
  }
}
