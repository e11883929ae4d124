import type { Inventory } from '@/ports'
import { v7 as uuid } from 'uuid'
import { inTransaction, row, rows, run, toJson, type Scope } from '../database'
import type { Sequelize } from 'sequelize'
import { hostGroupOf } from './hostGroupOf'

/** Columns of a table that a system's inventory fills, with their types. */
type Columns = Readonly<Record<string, string>>
const bytes = 'numeric'

const tables: Readonly<
  Record<
    | 'controllers'
    | 'enclosures'
    | 'pools'
    | 'drives'
    | 'ports'
    | 'volumes'
    | 'mappings'
    | 'nodes'
    | 'switches'
    | 'switch_ports'
    | 'node_ports',
    Columns
  >
> = {
  controllers: { name: 'text', model: 'text', firmware: 'text', state: 'text' },
  enclosures: { name: 'text', bay_count: 'int', bays_per_row: 'int' },
  pools: {
    name: 'text',
    scheme: 'jsonb',
    failure_domain: 'text',
    drive_kind: 'jsonb',
    group_sizes: 'jsonb',
    spare_count: 'int',
    state: 'text',
    raw_bytes: bytes,
    usable_bytes: bytes,
    written_bytes: bytes,
    provisioned_bytes: bytes,
    metadata_bytes: bytes,
    snapshot_reserve_bytes: bytes,
    redundancy_bytes: bytes,
    stranded_bytes: bytes,
    spare_bytes: bytes,
    rebuild_reserve_bytes: bytes,
  },
  drives: {
    enclosure_id: 'uuid',
    bay: 'int',
    name: 'text',
    media: 'text',
    protocol: 'text',
    capacity_bytes: bytes,
    model: 'text',
    serial: 'text',
    wwn: 'text',
    firmware: 'text',
    state: 'text',
    role: 'text',
    pool_id: 'uuid',
    group_index: 'int',
    rotation_speed_rpm: 'int',
    power_on_hours: 'int',
    wear_ratio: 'double precision',
    node_id: 'uuid',
    is_boot: 'boolean',
    is_lit: 'boolean',
    drive_writes_per_day: 'double precision',
    left_over: 'jsonb',
    bank: 'int',
  },
  ports: {
    name: 'text',
    protocol: 'text',
    speed_bits_per_second: 'double precision',
    is_up: 'boolean',
    address: 'text',
    target_name: 'text',
  },
  volumes: {
    pool_id: 'uuid',
    name: 'text',
    naa: 'text',
    size_bytes: bytes,
    is_thin: 'boolean',
    written_bytes: bytes,
    lost_bytes: bytes,
  },
  nodes: {
    name: 'text',
    host_name: 'text',
    rack: 'text',
    enclosure_id: 'uuid',
    state: 'text',
    firmware: 'text',
    model: 'text',
    clock_offset_seconds: 'double precision',
    is_restart_service_on: 'boolean',
    most_capacity_drives: 'int',
    memory_bytes: 'double precision',
    agent_address: 'text',
  },
  switches: { name: 'text', model: 'text', firmware: 'text' },
  switch_ports: { switch_id: 'uuid', name: 'text', mtu: 'int', vlans: 'jsonb', is_up: 'boolean', peer_port_id: 'uuid' },
  node_ports: {
    node_id: 'uuid',
    name: 'text',
    mac: 'text',
    speed_bits_per_second: 'double precision',
    is_up: 'boolean',
    mtu: 'int',
    traffic: 'jsonb',
    switch_port_id: 'uuid',
    storage: 'jsonb',
  },
  mappings: { volume_id: 'uuid', host_group_id: 'uuid', group_name: 'text', lun: 'int' },
}

const snake = (name: string) => name.replace(/[A-Z]/g, letter => `_${letter.toLowerCase()}`)

/**
 * Takes over what a system says it has, in one transaction: new objects get ids, changed ones a new revision, and what the system
 * no longer has goes. Rows that are as they were are not written at all.
 */
export async function storeInventory(database: Sequelize, systemId: string, found: Inventory): Promise<void> {
  await inTransaction(database, async scope => {
    // One reader of a system at a time: two that overlap would each delete what the other has just found.
    await row(scope, 'select id from systems where id = $1 for update', [systemId])
    const { identity } = found
    await run(
      scope,
      'update systems set maker = $2, model = $3, serial = $4, firmware = $5, sensors = $6::jsonb, cluster_name = $7 where id = $1',
      [
        systemId,
        identity.maker,
        identity.model,
        identity.serial,
        identity.firmware,
        toJson(found.sensors),
        found.clusterName,
      ],
    )
    await upsert(scope, 'controllers', systemId, found.controllers)
    const enclosures = await upsert(scope, 'enclosures', systemId, found.enclosures)
    const nodes = await storeNodes(scope, systemId, found, enclosures)
    const pools = await upsert(scope, 'pools', systemId, found.pools)
    await upsert(
      scope,
      'drives',
      systemId,
      found.drives.map(drive => ({
        ...drive,
        enclosureId: enclosures.get(drive.enclosureLocator) ?? null,
        poolId: pools.get(drive.poolLocator ?? '') ?? null,
        nodeId: nodes.get(drive.nodeLocator ?? '') ?? null,
      })),
    )
    await upsert(scope, 'ports', systemId, found.ports)
    const volumes = await upsert(
      scope,
      'volumes',
      systemId,
      found.volumes
        .filter(volume => pools.has(volume.poolLocator))
        .map(volume => ({ ...volume, poolId: pools.get(volume.poolLocator) })),
    )
    const groupOf = await hostGroupOf(scope)
    await upsert(
      scope,
      'mappings',
      systemId,
      found.mappings
        .filter(mapping => volumes.has(mapping.volumeLocator))
        .map(mapping => ({
          ...mapping,
          volumeId: volumes.get(mapping.volumeLocator),
          hostGroupId: groupOf(mapping.initiators, mapping.groupName),
        })),
    )
  })
}

/** Nodes, switches and the ports of both. @returns the nodes' ids by locator */
async function storeNodes(
  scope: Required<Scope>,
  systemId: string,
  found: Inventory,
  enclosures: ReadonlyMap<string, string>,
): Promise<Map<string, string>> {
  const nodes = await upsert(
    scope,
    'nodes',
    systemId,
    found.nodes.map(node => ({ ...node, enclosureId: enclosures.get(node.enclosureLocator ?? '') ?? null })),
  )
  const switches = await upsert(scope, 'switches', systemId, found.switches)
  // Switch ports lead to each other: their ids have to be known before they are written.
  const known = await idsOf(scope, 'switch_ports', systemId)
  const portIds = new Map(found.switchPorts.map(port => [port.locator, known.get(port.locator) ?? uuid()]))
  await upsert(
    scope,
    'switch_ports',
    systemId,
    found.switchPorts.map(port => ({
      ...port,
      id: portIds.get(port.locator),
      switchId: switches.get(port.switchLocator),
      peerPortId: portIds.get(port.peerPortLocator ?? '') ?? null,
    })),
  )
  await upsert(
    scope,
    'node_ports',
    systemId,
    found.nodePorts.map(port => ({
      ...port,
      nodeId: nodes.get(port.nodeLocator),
      switchPortId: portIds.get(port.switchPortLocator ?? '') ?? null,
    })),
  )
  return nodes
}

/** @returns the ids by locator */
async function upsert(
  scope: Required<Scope>,
  table: keyof typeof tables,
  systemId: string,
  found: readonly { readonly locator: string }[],
): Promise<Map<string, string>> {
  const columns = Object.entries(tables[table])
  const names = columns.map(([name]) => name)
  const records = found.map(each => ({
    id: uuid(),
    ...Object.fromEntries(Object.entries(each).map(([name, value]) => [snake(name), value as unknown])),
  }))
  const list = toJson(records)
  await run(
    scope,
    `delete from ${table} where system_id = $1 and locator not in (select r.locator from jsonb_to_recordset($2::jsonb) as r(locator text))`,
    [systemId, list],
  )
  await run(
    scope,
    `insert into ${table} as known (id, system_id, locator, ${names.join(', ')})
     select r.id, $1, r.locator, ${names.map(name => `r.${name}`).join(', ')}
     from jsonb_to_recordset($2::jsonb) as r(id uuid, locator text, ${columns.map(([name, type]) => `${name} ${type}`).join(', ')})
     on conflict (system_id, locator) do update set ${names.map(name => `${name} = excluded.${name}`).join(', ')}
     where (${names.map(name => `known.${name}`).join(', ')}) is distinct from (${names.map(name => `excluded.${name}`).join(', ')})`,
    [systemId, list],
  )
  return idsOf(scope, table, systemId)
}

async function idsOf(scope: Scope, table: keyof typeof tables, systemId: string): Promise<Map<string, string>> {
  const ids = await rows<{ readonly id: string; readonly locator: string }>(
    scope,
    `select id, locator from ${table} where system_id = $1`,
    [systemId],
  )
  return new Map(ids.map(({ id, locator }) => [locator, id]))
}
