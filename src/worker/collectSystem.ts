import { refusalOf } from '@/core/errors'
import { noteReach, storeInventory } from '@/records/inventory'
import { collectRow } from './collectRow'
import type { World } from './World'

/** Reads a system into the records, with whether it answers. @throws what the connector throws */
export async function collectSystem(world: World, systemId: string): Promise<void> {
  const scope = { database: world.database }
  try {
    const system = await world.system(systemId)
    const found = await system.inventory()
    await storeInventory(world.database, systemId, found)
    if (found.nodes.length > 0) await collectRow(world, systemId, found)
    await noteReach(scope, systemId, null)
  } catch (cause) {
    const { code, what, why } = refusalOf(cause)
    if (code.startsWith('redfish.') || code.startsWith('connection.'))
      await noteReach(scope, systemId, `${what} ${why}`)
    throw cause
  }
}
