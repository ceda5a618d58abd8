/** That a turn was begun: by whom, where that is known, and when it was kept last. */
export const sayBegun = (by: string, when: string): string =>
  by === '' ? `Begun, kept ${when}` : `Begun by ${by}, kept ${when}`
