/** Which states something is about: those in which a section is the current one. */
export interface Standing {
  section: number
  /** The section before is complete and being left. */
  leaving?: boolean
  /** The routes lead to the section, which may not show. */
  reaching?: boolean
  /** What it depends on in the section is answered, where that is asked and required. */
  answered?: true
  /**
   * By position, the turn whose state it is; `any`: of whichever turn, or of none any more. Else that of a turn that sees the section, and at
   * the finish the end of all.
   */
  turn?: number | 'any'
}
