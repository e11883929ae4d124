import { setTimeout as pause } from 'node:timers/promises'
import { refusalOf } from '@/core/errors'
import {
  accessFindings,
  certificateFindings,
  driftFindings,
  edgeFindings,
  mirrorFindings,
  readingFindings,
} from '@/core/findings'
import {
  accessApart,
  brokenMirrors,
  drifted,
  estateNow,
  keepFindings,
  missingOf,
  nextReading,
  noteReach,
  storeInventory,
  storeParts,
  systemName,
} from '@/records/inventory'
import type { Inventory } from '@/ports'
import { collectFiles } from './collectFiles'
import { collectRow } from './collectRow'
import type { World } from '../World'

/** Codes of what systems, and the ways to them, do wrong, whatever the protocol. */
const isOfSystem = /^(system|connection)\./

const garbled = 'connection.unreadable-answer'
const againMilliseconds = 500

/** One answer that is not whole says nothing of the system: it is asked once more before it counts as one that does not answer. */
async function read(world: World, systemId: string): Promise<Inventory> {
  const system = await world.system(systemId)
  try {
    return await system.inventory()
  } catch (cause) {
    if (refusalOf(cause).code !== garbled) throw cause
    await pause(againMilliseconds, undefined, { signal: world.stop })
    return system.inventory()
  }
}

/**
 * Reads a system into the records, with whether it answers.
 * @param isFirm what has been done to it before must stand in the records from now on, whatever another reading saw that is still
 *   under way. @throws what the connector throws
 */
export async function collectSystem(world: World, systemId: string, isFirm = true): Promise<void> {
  const scope = { database: world.database }
  const named = { id: systemId, name: await systemName(scope, systemId) }
  try {
    const number = await nextReading(scope)
    const readAt = await estateNow(scope)
    const found = await read(world, systemId)
    const kept = await storeInventory(world.database, systemId, found, number, world.kept.get(systemId), isFirm)
    world.kept.set(systemId, kept)
    world.readAt.set(systemId, readAt)
    if (found.nodes.length > 0) await collectRow(world, systemId, found)
    if (found.fileUnits.length > 0) await collectFiles(world, systemId)
    const missing = await missingOf(scope, systemId)
    await keepFindings(scope, systemId, 'reading', [
      ...readingFindings(named, missing, [...found.skipped, ...kept.notKept]),
      ...mirrorFindings(named, await brokenMirrors(scope, systemId)),
    ])
    await noteDrift(world, named)
    await noteReach(scope, systemId, null)
    const endsAt = (await world.system(systemId)).certificateEndsAt()
    await keepFindings(scope, systemId, 'edge', certificateFindings({ ...named, endsAt }, new Date()))
  } catch (cause) {
    const { code, what, why } = refusalOf(cause)
    if (isOfSystem.test(code)) {
      const trouble = { code, why: `${what} ${why}` }
      await noteReach(scope, systemId, trouble)
      await keepFindings(scope, systemId, 'edge', edgeFindings(named, trouble))
    }
    throw cause
  }
}

/** Notes what a system states otherwise than it was set; asked for after each reading, written only where it has become another. */
async function noteDrift(world: World, named: { readonly id: string; readonly name: string }): Promise<void> {
  const systemId = named.id
  const scope = { database: world.database }
  const { lacking, others } = await accessApart(scope, systemId)
  const findings = [...driftFindings(await drifted(scope, systemId)), ...accessFindings(named, lacking, others)]
  const mark = JSON.stringify(findings)
  if (world.drift.get(systemId) === mark) return
  await keepFindings(scope, systemId, 'drift', findings)
  world.drift.set(systemId, mark)
}

/** Reads what an event names into the records. @returns false where the whole system has to be read for it */
export async function collectParts(world: World, systemId: string, locators: readonly string[]): Promise<boolean> {
  const number = await nextReading({ database: world.database })
  const parts = await (await world.system(systemId)).parts(locators)
  if (parts === undefined) return false
  world.kept.set(systemId, await storeParts(world.database, systemId, parts, number, world.kept.get(systemId)))
  return true
}
