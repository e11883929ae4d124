const yearSeconds = 31_536_000

/** Sent with every answer, whoever makes it. */
export const always: Readonly<Record<string, string>> = {
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
  'Referrer-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
}

export const overTls: Readonly<Record<string, string>> = {
  'Strict-Transport-Security': `max-age=${yearSeconds}; includeSubDomains`,
}

/** For what is no page: nothing in it may run or be framed. */
export const policyOfData = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'"

/**
 * For pages: scripts and style sheets of our own only, and those that carry this answer's nonce. Drawings set positions by style
 * attributes, which a nonce cannot name.
 */
export const policyOfPages = (nonce: string) =>
  [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "object-src 'none'",
  ].join('; ')
