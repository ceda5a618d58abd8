/** Minutes between one try and the next of what goes outside: growing, a day in all. */
export const PAUSES: readonly number[] = [1, 5, 15, 60, 180, 420, 760]
export const MINUTE = 60_000
