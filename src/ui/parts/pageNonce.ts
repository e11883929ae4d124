/**
 * The word by which this page's own styles are let through. Lists and dialogs of the control library write a style element of their
 * own when they open; without it the browser would refuse them. Source: CSP 3, nonces are hidden from the markup but not from scripts.
 */
export const pageNonce = (): string | undefined =>
  typeof document === 'undefined' ? undefined : document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce
