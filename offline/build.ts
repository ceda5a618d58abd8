import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

/** A part of the pages as the build lists it: what it is made of, and what it brings at once or later. */
interface Chunk {
  file: string
  name?: string
  css?: string[]
  assets?: string[]
  imports?: string[]
  dynamicImports?: string[]
  isEntry?: boolean
}

/** What the chunk of the respondent’s page is called, which alone has that name (pages/f/[token].vue). */
const PAGE = '_token_'
/** Of what the application may bring later, what a respondent’s page needs besides the page itself. */
const LATER = /(?:layouts\/quiet|app\/error|entry-(?:error|spa))/
/** What only helps with one thing, and is large: it is fetched when it is asked for. */
const LARGE = /pdfmake|responsePdf/

/** The files that a respondent’s page may ask for, whatever its form asks. */
export function listRespondentFiles(manifest: Readonly<Record<string, Chunk>>): string[] {
  const files = new Set<string>()
  const [page] = Object.entries(manifest).find(([, chunk]) => chunk.name === PAGE) ?? []
  if (page === undefined) throw new Error('The build has no respondent’s page.')
  const done = new Set<string>()
  /** `isOfPage`: what a chunk brings later is the page’s own, not that of other pages. */
  const visit = (name: string, isOfPage: boolean) => {
    const chunk = manifest[name]
    if (!chunk || done.has(`${name} ${isOfPage}`) || LARGE.test(name)) return
    done.add(`${name} ${isOfPage}`)
    for (const file of [chunk.file, ...(chunk.css ?? []), ...(chunk.assets ?? [])])
      files.add(`/_nuxt/${file}`)
    const isOwn = isOfPage && chunk.isEntry !== true
    for (const next of chunk.imports ?? []) visit(next, isOwn)
    for (const next of chunk.dynamicImports ?? []) if (isOwn || LATER.test(next)) visit(next, isOwn)
  }
  for (const [name, chunk] of Object.entries(manifest)) if (chunk.isEntry) visit(name, false)
  visit(page, true)
  return [...files]
}

/** Bundles the service worker of respondents’ pages. `folder`: of what is served as it is. */
export async function buildRespondentWorker(folder: string, files: readonly string[]): Promise<void> {
  await build({
    entryPoints: [fileURLToPath(new URL('./worker.ts', import.meta.url))],
    outfile: join(folder, 'respondent-worker.js'),
    bundle: true,
    platform: 'browser',
    target: 'es2020',
    format: 'iife',
    minify: true,
    define: {
      'process.env.NODE_ENV': '"production"',
      RESPONDENT_FILES: JSON.stringify(files),
    },
  })
}
