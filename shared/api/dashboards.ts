import { z } from 'zod'
import { ResponseFilter } from './responses'

/** So many dashboards somebody keeps at most, and so many figures stand on one. */
export const MOST_DASHBOARDS = 50
export const MOST_TILES = 40

/** A figure on a dashboard: of which form, which one (the key of its measure; empty: how many responses there are), of which responses, and compared by what. */
export const Tile = z.strictObject({
  form: z.uuid(),
  figure: z.string().max(130),
  title: z.string().trim().max(200),
  filter: ResponseFilter,
  by: z.string().max(130).default(''),
})
export type Tile = z.infer<typeof Tile>

/** A dashboard to be kept; `isShared`: for everybody who sees the responses of one of its forms. */
export const NewDashboard = z.strictObject({
  name: z.string().trim().min(1, 'a name is needed').max(80),
  isShared: z.boolean(),
  tiles: z.array(Tile).max(MOST_TILES),
})
export type NewDashboard = z.infer<typeof NewDashboard>

/** A dashboard as somebody sees it: with the figures of those forms whose responses they may see; `hidden`: how many others it has. */
export const Dashboard = NewDashboard.extend({
  id: z.string(),
  isOwn: z.boolean(),
  by: z.string(),
  hidden: z.int(),
  tiles: z.array(Tile.extend({ formTitle: z.string() })),
})
export type Dashboard = z.infer<typeof Dashboard>
export const Dashboards = z.object({ dashboards: z.array(Dashboard) })
