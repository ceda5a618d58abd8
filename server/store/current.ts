import type { Database, Store } from './database'

let opened: Promise<Store> | null = null

/** Sets the store that this process uses. */
export const useStore = (given: Promise<Store>) => {
  opened = given
}

/** The database of this process, once it is open. */
export async function database(): Promise<Database> {
  return (await store()).db
}

/** The open store of this process, once it is open. */
export function store(): Promise<Store> {
  if (!opened) throw new Error('The store is asked for before it was opened.')
  return opened
}
