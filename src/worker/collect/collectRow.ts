import { spreadMove, spreadRebuild, isSpreadScheme } from '@/core/clusters'
import { those, within, type Estate } from '@/core/estate'
import { rowFindings } from '@/core/findings'
import { forecastBefore, type Forecast } from '@/core/transfer'
import { lookUpNames } from '@/looking'
import type { Inventory } from '@/ports'
import { loadEstate, type Scope } from '@/records'
import { isWorkKnown, keepFindings, keepNewWork, noteWork, workMisses, estateNow } from '@/records/inventory'
import type { World } from '../World'

const namesAgeMilliseconds = 5 * 60_000
/** Moves and rebuilds begin with finding out what has to be done. */
const startSeconds = 5

/** What follows from a reading of a row of nodes: names asked again, work forecast and followed, and what is wrong now. */
export async function collectRow(world: World, systemId: string, found: Inventory): Promise<void> {
  const scope = { database: world.database }
  const first = await loadEstate(scope, within(systemId), 'rebuild')
  await refreshNames(scope, first)
  await followWorks(scope, systemId, found, first)
  const pools = first.pools.filter(pool => pool.systemId === systemId && pool.failureDomain !== null)
  const estate = await loadEstate(
    scope,
    [...within(systemId), those('volumes', 'poolId', ...pools.map(pool => pool.id))],
    'rebuild',
  )
  await keepFindings(scope, systemId, 'row', rowFindings(estate, systemId))
}

async function refreshNames(scope: Scope, estate: Estate): Promise<void> {
  const addresses = estate.nodePorts.flatMap(port => port.storage?.address ?? [])
  if (addresses.length === 0) return
  const fresh = new Set(
    estate.nameAnswers
      .filter(each => Date.now() - Date.parse(each.at) < namesAgeMilliseconds)
      .map(each => `${each.kind}/${each.query}`),
  )
  const names = estate.nodes.flatMap(node => node.hostName ?? []).filter(name => !fresh.has(`forward/${name}`))
  const reverse = addresses.filter(address => !fresh.has(`reverse/${address}`))
  if (names.length + reverse.length > 0) await lookUpNames(scope, names, reverse)
}

async function followWorks(scope: Scope, systemId: string, found: Inventory, estate: Estate): Promise<void> {
  for (const work of found.works) {
    const at = await estateNow(scope)
    if (!(await isWorkKnown(scope, systemId, work.locator)))
      await keepNewWork(scope, systemId, work, await forecastOf(scope, systemId, work, estate), at)
    await noteWork(scope, systemId, work, at)
  }
}

async function forecastOf(
  scope: Scope,
  systemId: string,
  work: Inventory['works'][number],
  estate: Estate,
): Promise<Forecast> {
  const pool = estate.pools.find(each => each.systemId === systemId && each.locator === work.poolLocator)
  const answering = new Set(estate.nodes.filter(node => node.state === 'fine').map(node => node.id))
  const remaining = estate.drives.filter(
    drive =>
      drive.poolId === pool?.id && drive.role === 'data' && drive.state === 'fine' && answering.has(drive.nodeId ?? ''),
  )
  const held = estate.drives.filter(drive => drive.poolId === pool?.id && drive.role === 'data').length
  const ports = estate.nodePorts.filter(port => port.storage !== null && answering.has(port.nodeId))
  const parts =
    pool === undefined || !isSpreadScheme(pool.scheme)
      ? []
      : work.kind === 'rebuild'
        ? spreadRebuild(remaining, ports, pool.scheme, Math.max(1, held - remaining.length))
        : spreadMove(remaining, remaining, ports)
  return forecastBefore(work.bytes, parts, startSeconds, await workMisses(scope, work.kind))
}
