import type { Database, Store } from './database'

let opened: Promise<Store> | null = null

/** Sets the store that this process uses. */
export const useStore = (store: Promise<Store>) => {
  opened = store
}

/** The database of this process, once it is open. */
export async function database(): Promise<Database> {
  if (!opened) throw new Error('The store is asked for before it was opened.')
  return (await opened).db
}
