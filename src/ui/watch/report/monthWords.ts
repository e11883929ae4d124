/** A month as it is said: `2026-10` is October 2026. */
export const monthWords = (month: string): string =>
  new Date(`${month}-01T00:00:00Z`).toLocaleDateString('en', { month: 'long', year: 'numeric', timeZone: 'UTC' })
