/** What stood in the form of a draft when its page went, and the edit of the draft that it stood over (0 for one that is not kept yet). */
export interface Unsent {
  readonly intent: object
  readonly edit: number
  /** Whether the server had taken it: then it tells only that a page which shows an earlier edit was read too soon. */
  readonly isWritten: boolean
}

const own = 'unsent '
let reader = ''

/**
 * Of one reader each: who comes in later by the same tab does not see what somebody else has typed. Where a page failed, its frame, which
 * names the reader, may have gone before the form has.
 */
function keyOf(draft: string): string {
  reader = document.querySelector<HTMLElement>('[data-reader]')?.dataset['reader'] ?? reader
  return `${own}${reader} ${draft}`
}
let isOver = false

/**
 * Keeps for this tab what stood in the form, so that a page that has to be read anew (a server that fails just then makes the browser do
 * so) loses nothing.
 * @param draft the draft's id, or its kind and address where it is not kept yet
 */
export function keepUnsent(draft: string, unsent: Unsent): void {
  if (isOver) return
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

/** Who signs out leaves nothing of what was typed, nor what the page would keep as it goes. */
export function forgetUnsent(): void {
  isOver = true
  try {
    for (const key of Object.keys(sessionStorage)) if (key.startsWith(own)) sessionStorage.removeItem(key)
  } catch {
    // There was nothing.
  }
}
