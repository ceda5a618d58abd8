/** What can be done with a form from outside of it. */
export type FormAct = 'share' | 'copy' | 'tag' | 'archive' | 'delete'
