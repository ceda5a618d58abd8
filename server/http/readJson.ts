import type { z } from 'zod'
import { problemsOf } from '../../core/form/read'
import { withStorableTexts } from '../../core/form/storableText'
import type { Refusal } from '../../shared/api/refusal'

/** What was read of JSON or of an address; or why it does not fit. */
export type ReadJson = { data: unknown; refusal: null } | { data: null; refusal: Refusal }

/** Reads a body by its schema. */
export function readJson(bytes: Uint8Array, schema: z.ZodType): ReadJson {
  const parsed = parseJson(bytes)
  return parsed
    ? readValid(parsed.data, schema, 'The request')
    : { data: null, refusal: { code: 'not-json', sentence: 'The request is not JSON.' } }
}

function parseJson(bytes: Uint8Array): { data: unknown } | null {
  try {
    return { data: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) }
  } catch {
    return null // said by whoever reads it
  }
}

/** What does not fit is refused with every problem and its path. Signs that the store can't hold are taken out of every text. */
export function readValid(data: unknown, schema: z.ZodType, what: string): ReadJson {
  const result = schema.safeParse(withStorableTexts(data))
  if (result.success) return { data: result.data, refusal: null }
  const problems = problemsOf(result.error, data)
  const [first] = problems
  const sentence = `${what} doesn’t fit: ${first?.path ?? ''} ${first?.sentence ?? ''}`.trim()
  return { data: null, refusal: { code: 'wrong-shape', sentence, problems } }
}
