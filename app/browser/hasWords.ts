/** Whether a text has every word that is typed in it, whatever their case, marks and order. */
export function hasWords(text: string, typed: string): boolean {
  const plain = plainLetters(text)
  return plainLetters(typed)
    .split(/\s+/)
    .every(word => plain.includes(word))
}

const plainLetters = (text: string) => text.normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase()
