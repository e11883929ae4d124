/** JSON in which bytes stand as decimal text. */
export function toJson(value: unknown): string {
  try {
    // Most of it has no bytes any more, and is written out in a third of the time without looking at each value.
    return JSON.stringify(value)
  } catch {
    return JSON.stringify(value, (_, each: unknown) => (typeof each === 'bigint' ? `${each}` : each))
  }
}
