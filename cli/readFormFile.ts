import { readFileSync } from 'node:fs'
import { readFormText } from '../core/form/read'

/** Reads a definition from a file; what keeps it from being read, as problems with their place. */
export function readFormFile(file: string): ReturnType<typeof readFormText> {
  try {
    return readFormText(readFileSync(file, 'utf8'))
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error)
    return { form: null, problems: [{ path: '', sentence: `It can't be read: ${reason}` }] }
  }
}
