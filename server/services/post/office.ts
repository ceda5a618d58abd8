/** What posts letters to a mail server; `site`: where this application is found from outside, for links. */
export interface PostOffice {
  /** @throws PostRefused where it is not taken */
  post: (letter: Posting) => Promise<void>
  /** There is something to be posted soon. */
  soon: () => void
  site: string
}

/** A letter as it goes out. `id`: the same for each try. */
export interface Posting {
  id: string
  to: string
  subject: string
  text: string
  html: string
  attachments: { filename: string; content: Uint8Array }[]
}

/** A letter that the mail server did not take; `isForGood`: no other try will change that. */
export class PostRefused extends Error {
  override name = 'PostRefused'
  constructor(
    message: string,
    readonly isForGood: boolean,
  ) {
    super(message)
  }
}

let office: PostOffice | null = null

/** Sets what letters are posted by; null: the post is simulated. */
export const usePostOffice = (found: PostOffice | null): void => {
  office = found
}

/** What letters are posted by; null where the post is simulated. */
export const postOffice = (): PostOffice | null => office
