import type { Audience } from '#core/form/audience'

/** Who may answer a form, in words. */
export const AUDIENCE_WORDS: Record<Audience['who'], string> = {
  all: 'everybody who has the link',
  signedIn: 'who is signed in',
  listed: 'who is signed in under one of some addresses',
  team: 'who is signed in and in a team',
  invited: 'who has a personal link',
}
