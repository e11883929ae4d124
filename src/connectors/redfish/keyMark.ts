/** What marks an object as made by one step of one change; the standard has no idempotency key, so it stands in the description. */
export const keyMark = (key: string) => `Made by Wendrel (${key})`
