import { peopleLists } from '../../core/lists/people'
import type { Database } from '../store/database'
import { isoToday } from './calendar'
import { resolveLink } from './links'
import { loadWorkspace } from './workspace'

/**
 * Everything that the first page of a link depends on, as a text: the link, the release, the people whom it offers, what of its options is
 * taken, what the link brings, the day, and what the workspace says of itself. Null for links whose pages are of one response.
 * @throws Refused for links that lead nowhere
 */
export async function respondentPageKey(db: Database, token: string): Promise<string | null> {
  const { release, response, entrance } = await resolveLink(db, { token, caller: null }, { for: 'beginning' })
  if (response !== null) return null
  const offered = JSON.stringify(peopleLists(release.definition))
  const { places, way, settings } = entrance ?? {}
  const entering = JSON.stringify([places, way?.values, settings?.audience, settings?.countsPages])
  return `${token} ${release.token} ${isoToday()} ${offered} ${entering} ${JSON.stringify(await loadWorkspace(db))}`
}
