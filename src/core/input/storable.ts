/**
 * Whether a text can be kept: PostgreSQL takes neither NUL nor half of a surrogate pair.
 * @see Unicode 15, D80 (well-formed code unit sequences)
 */
export const isStorable = (text: string) => !text.includes('\0') && text.isWellFormed()

/** The text without what cannot be kept: for what is looked for, and for names that others give, which are told all the same. */
export const storable = (text: string) => text.replaceAll('\0', '').toWellFormed()

/** Whether a text of JSON may hold what cannot be kept: only an escape can bring a NUL or half a character into it. */
export const mayBeUnstorable = (json: string) => /\\u0000|\\u[dD][89abAB]/.test(json)

export const isUuid = (text: string) => /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/.test(text)

/** A whole number from 1 that fits PostgreSQL's integer, as an address bears it; undefined for anything else. */
export function wholeNumber(text: string | undefined): number | undefined {
  if (text === undefined || !/^[1-9][0-9]{0,9}$/.test(text)) return undefined
  return Number(text) <= 2_147_483_647 ? Number(text) : undefined
}
