import { RequestRefused } from '@/ports'

/** Removes something that may be gone already, as after a step that was cut off. */
export async function unlessGone(work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (cause) {
    if (cause instanceof RequestRefused && (cause.status === 404 || cause.status === 410)) return
    throw cause
  }
}
