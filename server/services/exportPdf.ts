import { Readable } from 'node:stream'
import { describeFilled } from '../../core/fill/describeResponse'
import type { PaperCopy } from '../../core/paper/responsePaper'
import { refuse } from '../http/refuse'
import type { Database } from '../store/database'
import { runTask } from '../threads/run'
import { takeOut } from './exportTable'
import { filesOf, picturesAmong } from './filesOfResponses'
import type { Definition } from './versions'

/** So many responses stand in one PDF file at most. */
const MOST_PRINTED = 100

/** Responses as a PDF file, each on pages of its own. Refused where they are too many for one. */
export async function printPdf(
  db: Database,
  ids: readonly string[],
  definitions: readonly Definition[],
): Promise<Readable> {
  if (ids.length > MOST_PRINTED)
    refuse(
      422,
      'too-many',
      `${ids.length} responses are too many for one PDF: at most ${MOST_PRINTED} stand in it.`,
    )
  const copies: PaperCopy[] = []
  for await (const { row, filled } of takeOut(db, ids, definitions))
    copies.push({
      title: filled.plan.form.title,
      about: `Response ${row.number}, sent ${row.sentAt.toISOString().slice(0, 10)}, version ${row.release}`,
      lines: describeFilled(filled).filter(line => line.state !== 'unasked'),
    })
  const pictures = await picturesAmong(await filesOf(db, ids))
  return Readable.from([await runTask('makePdf', { copies, pictures })], { objectMode: false })
}
