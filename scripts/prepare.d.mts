/** A PostgreSQL server of its own; null when there is none to be had. */
export function startPostgres(options?: { isSynced?: boolean }): Promise<{
  url: string
  pause: () => boolean
  resume: () => boolean
  stop: () => void
} | null>
