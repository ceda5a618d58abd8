const EMAIL_LENGTH = 254
/** What is wrong with an e-mail address; null when nothing is. */
export function emailProblem(text: string): string | null {
  const at = text.indexOf('@')
  if (/\s/.test(text.trim())) return 'An e-mail address has no blanks.'
  if (at < 0) return 'The “@” is missing: an e-mail address looks like name@place.example.'
  if (at === 0) return 'The name before the “@” is missing.'
  const domain = text.slice(at + 1).trim()
  if (domain === '') return 'The part after the “@” is missing.'
  if (domain.includes('@')) return 'There is more than one “@”.'
  if (!domain.includes('.') || domain.startsWith('.') || domain.endsWith('.') || domain.includes('..'))
    return 'The part after the “@” is not complete: it looks like place.example.'
  return text.trim().length > EMAIL_LENGTH ? 'This e-mail address is too long.' : null
}

const LEAST_DIGITS = 5
const MOST_DIGITS = 20
/** What is wrong with a phone number; null when nothing is. */
export function phoneProblem(text: string): string | null {
  const odd = /[^\d\s+().\-/]/.exec(text)
  if (odd) return `“${odd[0]}” can’t stand in a phone number.`
  const digits = text.replaceAll(/\D/g, '').length
  if (text.trim().lastIndexOf('+') > 0) return 'The “+” stands only at the beginning.'
  if (digits < LEAST_DIGITS) return `A phone number has at least ${LEAST_DIGITS} digits.`
  return digits > MOST_DIGITS ? `A phone number has at most ${MOST_DIGITS} digits.` : null
}

/** What is wrong with a web address; null when nothing is. */
export function urlProblem(text: string): string | null {
  const t = text.trim()
  if (/\s/.test(t)) return 'A web address has no blanks.'
  if (!/^https?:\/\//i.test(t)) return 'A web address begins with https:// or http://.'
  const host = t.replace(/^https?:\/\//i, '').split(/[/?#]/)[0] ?? ''
  return /^[^.@\s]+(?:\.[^.@\s]+)+$/.test(host.replace(/:\d+$/, ''))
    ? null
    : 'The name of the site is not complete: it looks like https://place.example.'
}
