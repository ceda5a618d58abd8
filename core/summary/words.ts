/** A word, and in how many responses it stands. */
export interface WordCount {
  word: string
  count: number
}

const WORD = /[\p{L}\p{N}][\p{L}\p{N}\p{M}'’-]*/gu
const SHORTEST = 3
/** Words that tell nothing by themselves. */
const PLAIN = new Set(
  'the and was for were with that this they them there then than had has have not but are our you your from all any can could would should will which when what who how why its his her she him out off did does been into too very just also'.split(
    ' ',
  ),
)

/** The words of a text, each once, in small letters. */
export function wordsIn(text: string): Set<string> {
  const found = new Set<string>()
  for (const [word] of text.toLowerCase().matchAll(WORD))
    if (word.length >= SHORTEST && !PLAIN.has(word)) found.add(word)
  return found
}

/** The words that stand in most texts, each text as often as it is counted. @param texts how often each text occurs */
export function countWords(texts: ReadonlyMap<string, number>, most: number): WordCount[] {
  const counts = new Map<string, number>()
  for (const [text, times] of texts)
    for (const word of wordsIn(text)) counts.set(word, (counts.get(word) ?? 0) + times)
  return [...counts]
    .map(([word, count]) => ({ word, count }))
    .sort((a, b) => b.count - a.count || a.word.localeCompare(b.word))
    .slice(0, most)
}
