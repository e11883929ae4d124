import type { ChangePorts } from '@/ports'
import type { Facts } from '../ChangeKind'

/**
 * Begins work that bears no mark of ours once only, however often the step is cut off: which task was the latest before is kept before
 * the work is asked for, so that a later one is known to be ours.
 * @param name of the fact under which it is kept, the same for the same work of a change
 * @param latest the latest task of that work, of whomever
 * @returns the task
 */
export async function begunOnce(
  name: string,
  facts: Facts,
  ports: ChangePorts,
  latest: () => Promise<string | null>,
  begin: () => Promise<string | null>,
): Promise<string | null> {
  const now = (await latest()) ?? ''
  const before = facts[name]
  if (before !== undefined && before !== now) return now
  if (before === undefined) await ports.keep({ [name]: now })
  return begin()
}
