/** What this page's own scripts and styles are marked with (Content Security Policy): a style that is made later needs it too. */
export function ownNonce(): string {
  if (import.meta.server) return useRequestEvent()?.context.nonce ?? ''
  // Browsers hide the attribute; the property tells it to scripts of the page.
  return document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce ?? ''
}
