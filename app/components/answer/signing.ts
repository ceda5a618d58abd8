import type { SignatureGiven } from '#shared/api/documents'

/** How far documents are signed on a page: how many there are (null while that is found out), the signatures once they are whole, and what is missing until then. */
export interface SigningState {
  count: number | null
  signatures: SignatureGiven[] | null
  missing: string
}

/** Before it is known what there is to be signed. */
export const NOT_READ: SigningState = { count: null, signatures: null, missing: 'Read the document first.' }
