import { randomBytes } from 'node:crypto'
import { Audience } from '../../core/form/audience'
import { ANYWHERE, Opening } from '../../core/form/opening'
import type { Database } from '../store/database'
import { forms, openings, ways } from '../store/schema'
import { countPlaces } from './places'

const newToken = () => randomBytes(12).toString('base64url')

/** The demo’s ways in: a form that is anonymous and may stand inside other pages, and one with a link for each place where it is shown. */
export async function seedWays(db: Database): Promise<void> {
  const rows = await db.select({ id: forms.id, draft: forms.draft }).from(forms)
  const find = (code: string) => {
    const form = rows.find(row => row.draft.code === code)
    if (!form) throw new Error(`The demo form “${code}” is missing.`)
    return form
  }
  const launch = find('after_launch')
  const audience = Audience.parse({ isAnonymous: true, perHour: 60 })
  const settings = Opening.parse({ audience, embedOn: [ANYWHERE] })
  await db.insert(openings).values({ formId: launch.id, token: newToken(), settings })
  await countPlaces(db, launch.id, launch.draft)
  const haulOut = find('haul_out')
  await db.insert(openings).values({ formId: haulOut.id, token: newToken(), settings: Opening.parse({}) })
  const links = [
    { name: 'Poster at the slip', values: { via: 'poster' }, taken: 0 },
    { name: 'Letter to berth holders', values: { via: 'letter' }, taken: 0 },
  ]
  await db
    .insert(ways)
    .values(links.map(link => ({ ...link, formId: haulOut.id, kind: 'link' as const, token: newToken() })))
}
