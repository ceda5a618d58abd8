/** A count with its noun: “1 response”, “3 responses”; the plural is the noun with “s”, unless another is given. */
export const counted = (count: number, noun: string, plural = `${noun}s`): string =>
  `${count} ${count === 1 ? noun : plural}`
