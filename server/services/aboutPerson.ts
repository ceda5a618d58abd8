import type { Readable } from 'node:stream'
import { and, desc, eq, ilike, inArray, or, sql } from 'drizzle-orm'
import { MOST_ABOUT, type AboutPerson } from '../../shared/api/aboutPerson'
import type { HistoryLine, ResponseDetails } from '../../shared/api/responses'
import type { Database } from '../store/database'
import {
  documents,
  forms,
  messages,
  releases,
  responseEvents,
  responses,
  signatures,
  turns,
} from '../store/schema'
import { filePart, filesOf } from './filesOfResponses'
import { listFormsWith } from './people/rights'
import { loadResponse } from './responses'
import { asPattern } from './turnSearch'
import { textContent, zipName, zipStream, type Part } from './zipStream'

/** Whoever asks: only the forms that they own are looked through. */
interface Asker {
  id: string
  email: string
}

/** The responses that hold a text, in answers, turns, letters or history, to all forms that somebody owns; the newest first. */
export async function findAboutPerson(db: Database, asker: Asker, text: string): Promise<AboutPerson> {
  const rows = await listRows(db, asker, text)
  const found: AboutPerson['found'] = []
  for (const { sentAt, ...row } of rows.slice(0, MOST_ABOUT)) {
    const details = await loadResponse(db, row.id, { email: asker.email, mayAct: false })
    found.push({ ...row, sentAt: sentAt.toISOString(), where: whereIn(details, text.toLowerCase()) })
  }
  return { found, isMore: rows.length > MOST_ABOUT }
}

async function listRows(db: Database, asker: Asker, text: string) {
  const owned = await listFormsWith(db, asker.id, 'own')
  if (owned.length === 0) return []
  const like = asPattern(text)
  return db
    .select({
      id: responses.id,
      form: { id: forms.id, title: forms.title },
      number: responses.number,
      sentAt: responses.sentAt,
      isBinned: sql<boolean>`${responses.binnedAt} is not null`,
      isOpen: sql<boolean>`${responses.turn} is not null`,
    })
    .from(responses)
    .innerJoin(releases, eq(responses.releaseId, releases.id))
    .innerJoin(forms, eq(releases.formId, forms.id))
    .where(and(inArray(releases.formId, owned), holdsText(db, like)))
    .orderBy(desc(responses.sentAt), desc(responses.id))
    .limit(MOST_ABOUT + 1)
}

/** A response of which something holds a text, whatever letters are large or small. */
function holdsText(db: Database, like: string) {
  const inTurns = db.select({ id: turns.responseId }).from(turns)
  const inLetters = db.select({ id: messages.responseId }).from(messages)
  const inHistory = db.select({ id: responseEvents.responseId }).from(responseEvents)
  const inSignatures = db
    .select({ id: documents.responseId })
    .from(signatures)
    .innerJoin(documents, eq(signatures.documentId, documents.id))
  return or(
    sql`${responses.words} like lower(${like}::text)`,
    inArray(responses.id, inTurns.where(sql`${turns.to}::text ilike ${like}`)),
    inArray(responses.id, inSignatures.where(or(ilike(signatures.name, like), ilike(signatures.who, like)))),
    inArray(responses.id, inLetters.where(or(ilike(messages.to, like), ilike(messages.text, like)))),
    inArray(
      responses.id,
      inHistory.where(
        or(ilike(responseEvents.who, like), sql`${responseEvents.details}::text ilike ${like}`),
      ),
    ),
  )
}

const signaturesOf = (made: ResponseDetails['documents']) => made.flatMap(d => d.signing?.signed ?? [])

/** In small words where a response holds a text: answers by their labels, then what else of it does. */
function whereIn({ lines, turns: taken, history, documents: made }: ResponseDetails, text: string): string[] {
  const has = (...texts: readonly string[]) => texts.some(t => t.toLowerCase().includes(text))
  const answers = lines.filter(line => has(line.text)).map(line => line.label)
  const isIn = (fits: (line: HistoryLine) => boolean) => history.some(fits)
  const others = [
    taken.some(turn => has(...turn.to)) ? 'a turn' : '',
    signaturesOf(made).some(s => has(s.name)) ? 'a signature' : '',
    isIn(h => h.kind === 'posted' && has(...h.to, h.subject, h.text)) ? 'a letter' : '',
    isIn(h => h.kind !== 'posted' && has(h.who, h.remark, ...h.to, ...h.changes.map(c => c.before)))
      ? 'the history'
      : '',
  ]
  return [...new Set([...answers, ...others])].filter(Boolean)
}

/** Everything that is found about one person, to be handed out: of each response its answers and history as a text, and its files. */
export async function handOutAboutPerson(
  db: Database,
  asker: Asker,
  text: string,
): Promise<{ name: string; mediaType: string; content: Readable; count: number }> {
  const rows = (await listRows(db, asker, text)).slice(0, MOST_ABOUT)
  async function* parts(): AsyncGenerator<Part> {
    for (const { id, form, number } of rows) {
      const folder = zipName(`${form.title} ${number}`)
      const details = await loadResponse(db, id, { email: asker.email, mayAct: false })
      yield { name: `${folder}/response.txt`, content: textContent(describe(details)) }
      for (const file of await filesOf(db, [id])) yield filePart(folder, file)
    }
  }
  return {
    name: 'about-one-person.zip',
    mediaType: 'application/zip',
    content: zipStream(parts()),
    count: rows.length,
  }
}

function describe({
  form,
  number,
  sentAt,
  lines,
  turns: taken,
  history,
  documents: made,
}: ResponseDetails): string {
  const answers = lines
    .filter(line => line.state === 'answered')
    .map(({ heading, entry, label, text }) =>
      [heading && `\n${heading}`, entry, `${label}: ${text}`].filter(Boolean).join('\n'),
    )
  const turnsTaken = taken.map(t => `${t.openedAt} ${t.name}: ${t.to.join(', ')}`)
  const signed = signaturesOf(made).map(s => [s.at, s.name, s.role, s.place].filter(Boolean).join(' · '))
  const happened = history.map(h =>
    [h.at, h.kind, h.who, h.to.join(', '), h.remark, h.subject, h.text].filter(Boolean).join(' · '),
  )
  return [
    `${form}, response ${number}, sent ${sentAt}`,
    ...answers,
    ...(turnsTaken.length > 0 ? ['\nTurns', ...turnsTaken] : []),
    ...(signed.length > 0 ? ['\nSignatures', ...signed] : []),
    ...(happened.length > 0 ? ['\nHistory and letters', ...happened] : []),
    '',
  ].join('\n')
}
