/** Files of the newest practice answers at most, and bytes of one. */
const MOST = 20
const LARGEST = 10_000_000

const files = new Map<string, Uint8Array>()

/** Keeps a picture that was given while practising, as long as the page is open: documents show it. Other files are only named. */
export async function keepPracticeFile(id: string, file: File): Promise<void> {
  if (!/^image\/(?:png|jpeg)$/.test(file.type) || file.size > LARGEST) return
  files.set(id, new Uint8Array(await file.arrayBuffer()))
  const [oldest] = files.keys()
  if (files.size > MOST && oldest !== undefined) files.delete(oldest)
}

/** The pictures that were given while practising, by the ids of their files. */
export const practiceFiles = (): ReadonlyMap<string, Uint8Array> => files
