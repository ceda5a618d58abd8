/** Something that the list of commands offers. */
export interface Command {
  words: string
  hint: string
  /** What it goes by exactly, such as a number or a code, in small letters: it stands first then. */
  names?: readonly string[]
  run: () => void
}
