/** What can be done with a form from outside of it. */
export type FormAct = 'copy' | 'tag' | 'archive' | 'delete'
