/** What stood in the form of a draft when its page went, and the edit of the draft that it stood over (0 for one that is not kept yet). */
export interface Unsent {
  readonly intent: object
  readonly edit: number
  /** Whether the server had taken it: then it tells only that a page which shows an earlier edit was read too soon. */
  readonly isWritten: boolean
}

const keyOf = (draft: string) => `unsent ${draft}`

/**
 * Keeps for this tab what stood in the form, so that a page that has to be read anew (a server that fails just then makes the browser do
 * so) loses nothing.
 * @param draft the draft's id, or its kind and address where it is not kept yet
 */
export function keepUnsent(draft: string, unsent: Unsent): void {
  try {
    sessionStorage.setItem(keyOf(draft), JSON.stringify(unsent))
  } catch {
    // A browser that keeps nothing, or is full: what is typed is then only in the page.
  }
}

/** @returns what was kept for this draft, once */
export function takeUnsent(draft: string): Unsent | undefined {
  try {
    const text = sessionStorage.getItem(keyOf(draft))
    if (text === null) return undefined
    sessionStorage.removeItem(keyOf(draft))
    return JSON.parse(text) as Unsent
  } catch {
    return undefined
  }
}
