import { execFile } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { promisify } from 'node:util'
import { withoutOutside } from '../../../core/documents/docx/withoutOutside'
import { refuse } from '../../http/refuse'
import { describeForLog } from '../../store/storeErrors'

const run = promisify(execFile)

/** Milliseconds, seconds of work and bytes of memory that setting one document may take. */
const WITHIN = 60_000
const LIMITS = ['--cpu=60', '--as=4000000000', '--fsize=200000000']
const MOST_WAITING = 20

/** Keeps a program away from every network: in a network of its own, which has nothing in it. */
const APART = ['unshare', '--map-root-user', '--net'] as const

let found: Promise<boolean> | null = null

/** Whether LibreOffice is here, and can be run without a network and within limits; looked for once. */
export const hasOffice = (): Promise<boolean> => (found ??= lookForOffice())

async function lookForOffice(): Promise<boolean> {
  if (process.env.TOBBIN_OFFICE === 'none') return false
  const [apart, ...options] = APART
  try {
    await run(apart, [...options, 'prlimit', ...LIMITS, 'soffice', '--version'], { timeout: WITHIN })
    return true
  } catch (error) {
    console.info(
      `PDF files of documents are set plainly: LibreOffice can’t be run here. ${describeForLog(error)}`,
    )
    return false
  }
}

/** One at a time: each takes a processor. */
let last: Promise<unknown> = Promise.resolve()
let waiting = 0

/**
 * A DOCX as a PDF file, set by LibreOffice: without a network, within a minute, in a folder that is removed behind it.
 * @throws Refused (503) where too many wait, or it can’t be set
 */
export function setByOffice(docx: Uint8Array): Promise<Uint8Array> {
  if (waiting >= MOST_WAITING)
    refuse(503, 'busy', 'The server has too many documents to set just now. Try again in a minute.')
  waiting += 1
  const next = last.then(() => convert(docx))
  last = next.catch(() => {}).finally(() => (waiting -= 1))
  return next
}

async function convert(docx: Uint8Array): Promise<Uint8Array> {
  const folder = await mkdtemp(join(tmpdir(), 'tobbin-document-'))
  try {
    const file = join(folder, 'document.docx')
    await writeFile(file, withoutOutside(docx))
    const [apart, ...options] = APART
    const profile = `-env:UserInstallation=${pathToFileURL(join(folder, 'profile')).href}`
    const set = ['--headless', '--norestore', profile, '--convert-to', 'pdf', '--outdir', folder, file]
    await run(apart, [...options, 'prlimit', ...LIMITS, 'soffice', ...set], {
      timeout: WITHIN,
      killSignal: 'SIGKILL',
      env: { PATH: process.env.PATH, HOME: folder },
    })
    return await readFile(join(folder, 'document.pdf'))
  } catch (error) {
    console.error(`A document could not be set. ${describeForLog(error)}`)
    return refuse(503, 'not-set', 'This document could not be made into a PDF file. Take it as .docx.')
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
