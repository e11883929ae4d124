import { refusalOf } from '@/core/errors'
import { noteClock, noteReach, storeInventory } from '@/records/inventory'
import type { World } from './World'

/** Reads a system into the records, with whether it answers and what its clock says. @throws what the connector throws */
export async function collectSystem(world: World, systemId: string): Promise<void> {
  const scope = { database: world.database }
  try {
    const system = await world.system(systemId)
    const found = await system.inventory()
    const asked = Date.now()
    const systemAt = await system.now()
    // The answer was written somewhere between asking and hearing: the middle errs least.
    await noteClock(scope, systemId, new Date((asked + Date.now()) / 2), systemAt)
    await storeInventory(world.database, systemId, found)
    await noteReach(scope, systemId, null)
  } catch (cause) {
    const { code, what, why } = refusalOf(cause)
    if (code.startsWith('redfish.') || code.startsWith('connection.')) await noteReach(scope, systemId, `${what} ${why}`)
    throw cause
  }
}
