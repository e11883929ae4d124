import type { Inventory, InventoryParts } from '@/ports'
import { v7 as uuid } from 'uuid'
import { inTransaction, row, rows, run, toJson, type Scope } from '../database'
import type { Sequelize } from 'sequelize'
import { hostGroupOf } from './hostGroupOf'
import { durableName, snake, tables, type Table } from './inventoryTables'

/** What of a reading could not be kept, and why. */
export interface NotKept {
  readonly locator: string
  readonly why: string
}

/** The number of a reading that begins now; of two readings the later one has the higher number, whoever makes them. */
export async function nextReading(scope: Scope): Promise<number> {
  return Number((await row<{ readonly number: string }>(scope, `select nextval('readings') as number`))?.number ?? 0)
}

/**
 * Takes over what a system says it has, in one transaction: new objects get ids, changed ones a new revision, and what the system does
 * not state any more is missing from now on. Rows that are as they were are not written at all. A reading that began before one that
 * is kept already is passed over.
 *
 * @param number of the reading
 * @returns what could not be kept
 */
export async function storeInventory(
  database: Sequelize,
  systemId: string,
  found: Inventory,
  number: number,
): Promise<readonly NotKept[]> {
  return inTransaction(database, async scope => {
    const notKept: NotKept[] = []
    // One reader of a system at a time: two that overlap would each miss what the other has just found.
    const system = await row<{ readonly read_number: string }>(
      scope,
      'select read_number from systems where id = $1 for update',
      [systemId],
    )
    if (system === undefined || Number(system.read_number) >= number) return notKept
    const { identity } = found
    await run(
      scope,
      `update systems set maker = $2, model = $3, serial = $4, firmware = $5, sensors = $6::jsonb, cluster_name = $7, read_number = $8, access_groups = $9::jsonb where id = $1`,
      [
        systemId,
        identity.maker,
        identity.model,
        identity.serial,
        identity.firmware,
        toJson(found.sensors),
        found.clusterName,
        number,
        toJson(found.accessGroups),
      ],
    )
    const keep = (table: Table, objects: readonly Located[]) => upsert(scope, table, systemId, objects, true, notKept)
    await keep('controllers', found.controllers)
    const enclosures = await keep('enclosures', found.enclosures)
    const nodes = await storeNodes(scope, keep, systemId, found, enclosures)
    const pools = await keep('pools', found.pools)
    await keep(
      'drives',
      found.drives.map(drive => ({
        ...drive,
        enclosureId: enclosures.get(drive.enclosureLocator) ?? null,
        poolId: pools.get(drive.poolLocator ?? '') ?? null,
        nodeId: nodes.get(drive.nodeLocator ?? '') ?? null,
      })),
    )
    await keep('ports', found.ports)
    const volumes = await keep('volumes', inPools(found.volumes, pools, notKept))
    const groupOf = await hostGroupOf(scope)
    await keep(
      'mappings',
      found.mappings
        .filter(mapping => volumes.has(mapping.volumeLocator))
        .map(mapping => ({
          ...mapping,
          volumeId: volumes.get(mapping.volumeLocator),
          hostGroupId: groupOf(mapping.initiators, mapping.groupName),
        })),
    )
    return notKept
  })
}

/** Takes over some objects that were read by themselves; nothing is missing because of what was not read. */
export async function storeParts(
  database: Sequelize,
  systemId: string,
  { volumes = [] }: InventoryParts,
  number: number,
): Promise<void> {
  await inTransaction(database, async scope => {
    const system = await row<{ readonly read_number: string }>(
      scope,
      'select read_number from systems where id = $1 for update',
      [systemId],
    )
    if (system === undefined || Number(system.read_number) >= number) return
    const pools = await idsOf(scope, 'pools', systemId)
    await upsert(scope, 'volumes', systemId, inPools(volumes, pools, []), false, [])
  })
}

const inPools = (volumes: Inventory['volumes'], pools: ReadonlyMap<string, string>, notKept: NotKept[]) =>
  volumes.flatMap(volume => {
    const poolId = pools.get(volume.poolLocator)
    if (poolId !== undefined) return [{ ...volume, poolId }]
    notKept.push({ locator: volume.locator, why: 'It names no pool that the system has.' })
    return []
  })

type Located = { readonly locator: string }
type Keep = (table: Table, objects: readonly Located[]) => Promise<Map<string, string>>

/** Nodes, switches and the ports of both. @returns the nodes' ids by locator */
async function storeNodes(
  scope: Required<Scope>,
  keep: Keep,
  systemId: string,
  found: Inventory,
  enclosures: ReadonlyMap<string, string>,
): Promise<Map<string, string>> {
  const nodes = await keep(
    'nodes',
    found.nodes.map(node => ({ ...node, enclosureId: enclosures.get(node.enclosureLocator ?? '') ?? null })),
  )
  const switches = await keep('switches', found.switches)
  // Switch ports lead to each other: their ids have to be known before they are written.
  const known = await idsOf(scope, 'switch_ports', systemId)
  const portIds = new Map(found.switchPorts.map(port => [port.locator, known.get(port.locator) ?? uuid()]))
  await keep(
    'switch_ports',
    found.switchPorts
      .filter(port => switches.has(port.switchLocator))
      .map(port => ({
        ...port,
        id: portIds.get(port.locator),
        switchId: switches.get(port.switchLocator),
        peerPortId: portIds.get(port.peerPortLocator ?? '') ?? null,
      })),
  )
  await keep(
    'node_ports',
    found.nodePorts
      .filter(port => nodes.has(port.nodeLocator))
      .map(port => ({
        ...port,
        nodeId: nodes.get(port.nodeLocator),
        switchPortId: portIds.get(port.switchPortLocator ?? '') ?? null,
      })),
  )
  return nodes
}

interface Known {
  readonly id: string
  readonly locator: string
  readonly name: string
  readonly isMissing: boolean
}

/** Gives each object that was found the id under which it is known: by its durable name, else by its place. */
function recognised(
  known: readonly Known[],
  found: readonly (Located & { readonly id?: string })[],
  nameOf: (object: Located) => string,
  notKept: NotKept[],
) {
  const byName = new Map(known.filter(each => each.name !== '').map(each => [each.name, each]))
  const byPlace = new Map(
    [...known].sort((a, b) => Number(b.isMissing) - Number(a.isMissing)).map(each => [each.locator, each]),
  )
  const names = new Set<string>()
  const places = new Set<string>()
  return found.flatMap(object => {
    const name = nameOf(object)
    if ((name !== '' && names.has(name)) || places.has(object.locator)) {
      notKept.push({
        locator: object.locator,
        why: `Another object of the same reading has its ${name === '' ? 'place' : `name, ${name}`}.`,
      })
      return []
    }
    names.add(name)
    places.add(object.locator)
    const there = byPlace.get(object.locator)
    // Where something with another durable name stood, this is another object at that place.
    const same = byName.get(name) ?? (there !== undefined && (there.name === '' || name === '') ? there : undefined)
    return [{ ...object, id: same?.id ?? object.id ?? uuid() }]
  })
}

/** @param isAll whether what is not among the objects is missing @returns the ids by locator */
async function upsert(
  scope: Required<Scope>,
  table: Table,
  systemId: string,
  found: readonly Located[],
  isAll: boolean,
  notKept: NotKept[],
): Promise<Map<string, string>> {
  const columns = Object.entries(tables[table])
  const names = columns.map(([name]) => name)
  const key = durableName[table]
  const nameOf = (object: Located) => String((object as Readonly<Record<string, unknown>>)[key ?? ''] ?? '')
  const known = await rows<Known>(
    scope,
    `select id, locator, ${key ?? "''"} as name, missing_since is not null as "isMissing" from ${table} where system_id = $1`,
    [systemId],
  )
  const objects = recognised(known, found, key === undefined ? () => '' : nameOf, notKept)
  const records = objects.map(each =>
    Object.fromEntries(Object.entries(each).map(([name, value]) => [snake(name), value as unknown])),
  )
  const list = toJson(records)
  if (isAll)
    await run(
      scope,
      `update ${table} set missing_since = now() where system_id = $1 and missing_since is null
         and id not in (select r.id from jsonb_to_recordset($2::jsonb) as r(id uuid))`,
      [systemId, list],
    )
  await run(
    scope,
    `insert into ${table} as known (id, system_id, locator, ${names.join(', ')})
     select r.id, $1, r.locator, ${names.map(name => `r.${name}`).join(', ')}
     from jsonb_to_recordset($2::jsonb) as r(id uuid, locator text, ${columns.map(([name, type]) => `${name} ${type}`).join(', ')})
     on conflict (id) do update set locator = excluded.locator, missing_since = null, ${names.map(name => `${name} = excluded.${name}`).join(', ')}
     where (known.locator, known.missing_since, ${names.map(name => `known.${name}`).join(', ')})
       is distinct from (excluded.locator, null::timestamptz, ${names.map(name => `excluded.${name}`).join(', ')})`,
    [systemId, list],
  )
  return new Map(objects.map(({ id, locator }) => [locator, id]))
}

async function idsOf(scope: Scope, table: Table, systemId: string): Promise<Map<string, string>> {
  const ids = await rows<{ readonly id: string; readonly locator: string }>(
    scope,
    `select id, locator from ${table} where system_id = $1 and missing_since is null`,
    [systemId],
  )
  return new Map(ids.map(({ id, locator }) => [locator, id]))
}
