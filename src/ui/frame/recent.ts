/** What was opened from the command list lately, in this browser: the latest first. */
export interface Recent {
  readonly href: string
  readonly words: string
  readonly detail: string
}

const store = 'wendrel:recent'
const most = 6

export function recent(): readonly Recent[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(store) ?? '[]')
    return Array.isArray(kept) ? kept.filter(isRecent).slice(0, most) : []
  } catch {
    return [] // the browser keeps nothing, or something else: then there is nothing to go back to
  }
}

export function keepRecent(opened: Recent): void {
  try {
    const rest = recent().filter(each => each.href !== opened.href)
    localStorage.setItem(store, JSON.stringify([opened, ...rest].slice(0, most)))
  } catch {
    // a browser that keeps nothing loses only a short cut
  }
}

/** Who signs out leaves nothing behind of what was looked at. */
export function forgetRecent(): void {
  try {
    localStorage.removeItem(store)
  } catch {
    // there was nothing
  }
}

/** Only addresses of our own: what else stands in the store was not put there by us. */
const isRecent = (value: unknown): value is Recent => {
  const { href, words, detail } = (value ?? {}) as Partial<Record<keyof Recent, unknown>>
  return (
    typeof href === 'string' && /^\/(?![/\\])/.test(href) && typeof words === 'string' && typeof detail === 'string'
  )
}
