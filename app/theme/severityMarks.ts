import type { Severity } from '#core/prove/finding'

/** The mark of each severity, so that colour is never alone. */
export const SEVERITY_MARKS: Readonly<Record<Severity, string>> = { fault: '✕', risk: '▲', advice: '●' }
