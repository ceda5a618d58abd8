/** Where the page behind a link asks the server: the rows of `API` that it uses, without their schemas, so that it loads none. */
export const LINK_ROUTES = {
  openLink: { method: 'GET', path: '/api/answer/:token' },
  sendAnswers: { method: 'POST', path: '/api/answer/:token' },
  refetchForm: { method: 'POST', path: '/api/answer/:token/form' },
  searchRows: { method: 'POST', path: '/api/answer/:token/rows' },
  keepTurn: { method: 'POST', path: '/api/answer/:token/draft' },
  returnTurn: { method: 'POST', path: '/api/answer/:token/return' },
  enterPassphrase: { method: 'POST', path: '/api/answer/:token/passphrase' },
  mailCopy: { method: 'POST', path: '/api/answer/:token/copy' },
  keepAnswers: { method: 'POST', path: '/api/answer/:token/kept' },
  recallAnswers: { method: 'POST', path: '/api/answer/:token/kept/recall' },
  mailKept: { method: 'POST', path: '/api/answer/:token/kept/mail' },
  fetchDocument: { method: 'POST', path: '/api/answer/:token/document' },
  readToSign: { method: 'POST', path: '/api/answer/:token/signing' },
  giveFile: { method: 'POST', path: '/api/answer/:token/files' },
} as const
export type LinkRoute = keyof typeof LINK_ROUTES
