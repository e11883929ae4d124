import { leastOffset } from '@/core/clock'
import type { Connection } from '../Connection'
import { isNodeManager } from './schema'

/**
 * How far each node's clock is from the row's own, in seconds, by the node's locator. Each is read between two readings
 * of the row's, so that a slow way to the row is never taken for a clock that is off.
 *
 * @param ofNodes only these; all where it is left out
 */
export async function clockOffsets(
  connection: Connection,
  managersPath: string | undefined,
  ofNodes?: readonly string[],
): Promise<Map<string, number>> {
  if (managersPath === undefined) return new Map()
  const managers = await connection.members(managersPath, isNodeManager)
  const timeOf = async (locator: string) => new Date((await connection.read(locator, isNodeManager)).DateTime ?? NaN)
  // A row without a manager of its own is compared with the first of its nodes.
  const own = managers.find(each => (each.Links?.ManagerForServers ?? []).length === 0) ?? managers[0]
  const reference = own?.['@odata.id']
  if (reference === undefined) return new Map()
  const offsets = new Map<string, number>()
  let before = await timeOf(reference)
  for (const manager of managers) {
    const nodes = (manager.Links?.ManagerForServers ?? []).map(each => each['@odata.id'])
    const wanted = nodes.filter(node => ofNodes === undefined || ofNodes.includes(node))
    if (wanted.length === 0) continue
    const read = await timeOf(manager['@odata.id'])
    if (Number.isNaN(read.getTime())) continue // it does not say its time: nothing is known
    const after = await timeOf(reference)
    for (const node of wanted) offsets.set(node, Math.round(leastOffset(before, read, after) / 100) / 10)
    before = after
  }
  return offsets
}
