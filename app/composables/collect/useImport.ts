import { API } from '#shared/api/endpoints'
import {
  MOST_ROWS_AT_ONCE,
  type ImportTable,
  type TakenImport,
  type WeighedImport,
} from '#shared/api/imports'
import { callApi } from '~/api/callApi'
import type { FileRow, ImportFile } from '~/workers/imports.worker'

/** A row of a file with the key that it is sent under, what it would do, and what became of it. */
export interface ImportedRow extends FileRow {
  key: string
  weighed: WeighedImport['rows'][number] | null
  taken: TakenImport['rows'][number] | null
}
/** How far it is: a file is chosen, looked at, brought in, or that is done. */
type Stage = 'choosing' | 'looking' | 'looked' | 'taking' | 'taken'

/** Bringing a file of responses in: read in a worker, looked at and taken by the server piece by piece. */
export function useImport(form: () => string) {
  const stage = ref<Stage>('choosing')
  const rows = shallowRef<ImportedRow[]>([])
  const table = shallowRef<ImportTable>({ heads: [], sheets: [] })
  /** How many entries of the file belong to none of its rows. */
  const loose = ref(0)
  const unread = ref<string[]>([])
  const { refusal, attempt } = useRefusable()
  const { through, stop, inPieces } = usePieces(() => (rows.value = [...rows.value]))
  const look = (file: File) =>
    attempt(async () => {
      stage.value = 'looking'
      const found = await readFile(file)
      if (found.is === 'failed') {
        stage.value = 'choosing'
        return found.sentence
      }
      table.value = { heads: found.heads, sheets: found.sheets }
      loose.value = found.loose
      rows.value = found.rows.map(row => ({ ...row, key: crypto.randomUUID(), weighed: null, taken: null }))
      await inPieces(rows.value, lookAt).catch((error: unknown) => {
        stage.value = 'choosing'
        throw error
      })
      stage.value = through.value < rows.value.length ? 'choosing' : 'looked'
      return null
    })
  async function lookAt(piece: ImportedRow[]) {
    const body = { ...table.value, rows: piece.map(({ number, key, given }) => ({ number, key, given })) }
    const weighed = await callApi(API.weighImport, { params: { id: form() }, body })
    unread.value = weighed.unread
    for (const [i, row] of piece.entries()) row.weighed = weighed.rows[i] ?? null
  }
  const take = (reason: string) =>
    attempt(async () => {
      stage.value = 'taking'
      const wanted = rows.value.filter(r => r.weighed?.is === 'new' || r.weighed?.is === 'changed')
      await inPieces(wanted, async piece => {
        const sent = piece.map(({ number, key, given, weighed }) => ({
          ...{ number, key, given },
          base: weighed?.base ?? null,
        }))
        const body = { ...table.value, rows: sent, reason }
        const { rows: taken } = await callApi(API.takeImport, { params: { id: form() }, body })
        for (const [i, row] of piece.entries()) row.taken = taken[i] ?? null
      })
      stage.value = 'taken'
    })
  return { stage, rows, unread, loose, through, refusal, look, take, stop }
}

/** Does something with rows piece by piece until it is stopped. @param shown is called after each */
function usePieces(shown: () => void) {
  /** How many rows are through. */
  const through = ref(0)
  let isStopped = false
  const stop = () => (isStopped = true)
  async function inPieces(about: readonly ImportedRow[], run: (piece: ImportedRow[]) => Promise<void>) {
    isStopped = false
    through.value = 0
    for (let from = 0; from < about.length && !isStopped; from += MOST_ROWS_AT_ONCE) {
      const piece = about.slice(from, from + MOST_ROWS_AT_ONCE)
      await run(piece)
      through.value += piece.length
      shown()
    }
  }
  onScopeDispose(stop)
  return { through, stop, inPieces }
}

/** Reads a file in a worker that is there for it alone. */
function readFile(file: File): Promise<ImportFile> {
  const worker = new Worker(new URL('../../workers/imports.worker.ts', import.meta.url), { type: 'module' })
  const found = new Promise<ImportFile>((done, failed) => {
    worker.addEventListener('message', ({ data }: MessageEvent<ImportFile>) => done(data))
    worker.addEventListener('error', event => failed(new Error(event.message)))
  })
  worker.postMessage(file)
  return found.finally(() => worker.terminate())
}
