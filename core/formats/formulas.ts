/** What spreadsheets take for the beginning of a formula, in full width too; behind marks that were put before it. */
const FORMULA = /^'*[=+\-@\t\r＝＋－＠]/
const DEFUSED = /^'+[=+\-@\t\r＝＋－＠]/

/** A text that no spreadsheet takes for a formula: with a mark before it where it would be one. `restoreFormula` takes it away again. */
export const defuseFormula = (text: string): string => (FORMULA.test(text) ? `'${text}` : text)

/** The text that `defuseFormula` was given. */
export const restoreFormula = (text: string): string => (DEFUSED.test(text) ? text.slice(1) : text)
