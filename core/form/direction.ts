/** Languages that are written from right to left, as their usual script has it (Unicode CLDR, likely subtags). */
const FROM_RIGHT: ReadonlySet<string> = new Set([
  ...['ar', 'arc', 'ckb', 'dv', 'fa', 'he', 'ks', 'mzn', 'nqo', 'pnb', 'ps', 'sd', 'syr', 'ug', 'ur', 'yi'],
])
/** Scripts that are (ISO 15924). */
const SCRIPTS_FROM_RIGHT: ReadonlySet<string> = new Set([
  'adlm',
  'arab',
  'hebr',
  'nkoo',
  'rohg',
  'syrc',
  'thaa',
])

/** From which side a language is written, by its tag (BCP 47); a script in it goes before what is usual. */
export function directionOf(language: string): 'ltr' | 'rtl' {
  const [name = '', ...parts] = language.toLowerCase().split('-')
  const script = parts.find(part => /^[a-z]{4}$/.test(part))
  const isFromRight = script ? SCRIPTS_FROM_RIGHT.has(script) : FROM_RIGHT.has(name)
  return isFromRight ? 'rtl' : 'ltr'
}
