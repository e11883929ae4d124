/** What is said in passing: that something was done, or why not. */
export interface Toast {
  readonly id: number
  readonly gravity: 'fine' | 'now'
  readonly words: string
}

const heard = new Set<(toast: Toast) => void>()
let last = 0

const say = (gravity: Toast['gravity'], words: string) => {
  last += 1
  for (const hear of heard) hear({ id: last, gravity, words })
}

/** Says something in passing at the foot of the page. Nothing that has to be kept is said only so. */
export const toast = {
  success: (words: string) => say('fine', words),
  error: (words: string) => say('now', words),
}

/** @returns how to hear no longer */
export function hearToasts(hear: (toast: Toast) => void): () => void {
  heard.add(hear)
  return () => void heard.delete(hear)
}
