import type {
  Controller,
  Enclosure,
  Estate,
  EstateNeeds,
  HostGroup,
  Mapping,
  Node,
  Port,
  Site,
  Switch,
  SwitchPort,
} from '@/core/estate'
import { isUuid } from '@/core/input'
import { rowRecords } from './rowRecords'
import { row as oneRow, rows, type Scope } from '../database'
import { settings } from '../settings'
import {
  toController,
  toDrive,
  toEnclosure,
  toHost,
  toHostGroup,
  toMapping,
  toNode,
  toNodePort,
  toSwitch,
  toSwitchPort,
  type NodePortRow,
  toPool,
  toPort,
  toProbe,
  toSite,
  toSystem,
  toVolume,
  type DriveRow,
  type HostRow,
  type PoolRow,
  type RowOf,
  type SystemRow,
  type VolumeRow,
} from './mapRows'

export const columns = {
  systems:
    'id, site_id, name, access_groups, address, maker, model, serial, uuid, firmware, reach, reach_why, seen_at, cluster_name, revision',
  controllers: 'id, system_id, name, model, firmware, state, revision',
  enclosures: 'id, system_id, name, bay_count, bays_per_row, revision',
  drives: `id, system_id, locator, enclosure_id, bay, name, media, protocol, capacity_bytes, model, serial, wwn, firmware, state, role, pool_id,
    group_index, rotation_speed_rpm, power_on_hours, wear_ratio, node_id, is_boot, is_lit, drive_writes_per_day, left_over, bank, revision`,
  ports: 'id, system_id, name, protocol, speed_bits_per_second, is_up, address, target_name, revision',
  pools: `id, system_id, locator, name, scheme, failure_domain, drive_kind, group_sizes, spare_count, state, raw_bytes, usable_bytes, written_bytes, provisioned_bytes,
    metadata_bytes, snapshot_reserve_bytes, redundancy_bytes, stranded_bytes, spare_bytes, rebuild_reserve_bytes, revision`,
  volumes:
    'id, system_id, locator, pool_id, name, naa, size_bytes, is_thin, written_bytes, lost_bytes, state, holding_until, revision',
  hosts: 'id, host_group_id, name, agent_address, operating_system, initiators, revision',
  mappings: 'id, system_id, locator, volume_id, host_group_id, group_name, lun, revision',
  nodes: `id, system_id, locator, name, host_name, rack, enclosure_id, state, firmware, model, clock_offset_seconds, is_restart_service_on,
    most_capacity_drives, memory_bytes, agent_address, revision`,
  node_ports: `id, system_id, locator, node_id, name, mac, speed_bits_per_second, is_up, mtu, traffic, switch_port_id, storage, revision`,
  switches: 'id, system_id, locator, name, model, firmware, revision',
  switch_ports: 'id, system_id, locator, switch_id, name, mtu, vlans, is_up, peer_port_id, revision',
} as const

const mostVolumes = 2000
const mostMisses = 50

/** The slice of the estate that a kind of change reads. A change's own claims are left out, so that it does not bar itself. */
export async function loadEstate(
  scope: Scope,
  needs: EstateNeeds,
  kind: string,
  ownChangeId?: string,
): Promise<Estate> {
  const systems = known(needs.drivesOfSystems)
  // One after another: in a transaction all go over one connection, which answers one question at a time.
  const sites = await rows<RowOf<Site>>(scope, 'select id, name, revision from sites order by name')
  const allSystems = await rows<SystemRow>(scope, `select ${columns.systems} from systems order by name`)
  const pools = await rows<PoolRow>(
    scope,
    `select ${columns.pools} from pools where missing_since is null order by name, id`,
  )
  const groups = await rows<RowOf<HostGroup>>(scope, 'select id, name, revision from host_groups order by name')
  const hosts = await rows<HostRow>(scope, `select ${columns.hosts} from hosts order by name`)
  type OfSystem =
    'drives' | 'enclosures' | 'controllers' | 'ports' | 'nodes' | 'node_ports' | 'switches' | 'switch_ports'
  const of = async <T extends object>(table: OfSystem, order: string) =>
    systems.length === 0
      ? []
      : rows<T>(
          scope,
          `select ${columns[table]} from ${table} where system_id = any($1) and missing_since is null order by ${order}`,
          [systems],
        )
  const drives = await of<DriveRow>('drives', 'enclosure_id, bay')
  const enclosures = await of<RowOf<Enclosure>>('enclosures', 'name')
  const controllers = await of<RowOf<Controller>>('controllers', 'name')
  const ports = await of<RowOf<Port>>('ports', 'name')
  const nodes = await of<RowOf<Node>>('nodes', 'name')
  const nodePorts = await of<NodePortRow>('node_ports', 'node_id, name')
  const switches = await of<RowOf<Switch>>('switches', 'name')
  const switchPorts = await of<RowOf<SwitchPort>>('switch_ports', 'switch_id, name')
  const row = await rowRecords(scope)
  const volumes = await volumesFor(scope, needs)
  const probe =
    needs.probeId === undefined || !isUuid(needs.probeId)
      ? undefined
      : await oneRow<Parameters<typeof toProbe>[0]>(scope, 'select id, at, found from probes where id = $1', [
          needs.probeId,
        ])
  const misses = await rows<{ readonly miss: number }>(
    scope,
    'select actual_seconds / base_seconds as miss from forecast_outcomes where kind = $1 and base_seconds > 0 order by ended_at desc limit $2',
    [kind, mostMisses],
  )
  const claims = await rows<{ readonly claim: string; readonly title: string }>(
    scope,
    'select claim, title from claims join changes on changes.id = change_id where change_id is distinct from $1::uuid',
    [ownChangeId ?? null],
  )
  const set = await settings(scope)
  const mappings =
    volumes.length === 0
      ? []
      : await rows<RowOf<Mapping>>(
          scope,
          `select ${columns.mappings} from mappings where volume_id = any($1) and missing_since is null order by lun`,
          [volumes.map(volume => volume.id)],
        )
  return {
    sites: sites.map(toSite),
    systems: allSystems.map(toSystem),
    controllers: controllers.map(toController),
    enclosures: enclosures.map(toEnclosure),
    drives: drives.map(toDrive),
    ports: ports.map(toPort),
    pools: pools.map(toPool),
    volumes: volumes.map(toVolume),
    hostGroups: groups.map(toHostGroup),
    hosts: hosts.map(toHost),
    mappings: mappings.map(toMapping),
    probes: probe === undefined ? [] : [toProbe(probe)],
    nodes: nodes.map(toNode),
    nodePorts: nodePorts.map(toNodePort),
    switches: switches.map(toSwitch),
    switchPorts: switchPorts.map(toSwitchPort),
    ...row,
    pastMisses: misses.map(({ miss }) => miss).reverse(),
    settings: set,
    claims: new Map(claims.map(({ claim, title }) => [claim, title])),
  }
}

/** Ids that could be some object's: what a draft has not named yet, or names wrongly, is nobody's. */
const known = (ids: readonly string[] = []) => ids.filter(isUuid)

async function volumesFor(scope: Scope, needs: EstateNeeds): Promise<VolumeRow[]> {
  const { volumeNames = [], volumeNamePrefix = '' } = needs
  const volumeIds = known(needs.volumeIds)
  const volumesOfPools = known(needs.volumesOfPools)
  if (volumeIds.length + volumeNames.length + volumesOfPools.length === 0 && volumeNamePrefix === '') return []
  return rows<VolumeRow>(
    scope,
    `select ${columns.volumes} from volumes where missing_since is null and (id = any($1) or name = any($2) or ($3 <> '' and name like $4) or pool_id = any($5)) order by name, id limit $6`,
    [
      volumeIds,
      volumeNames,
      volumeNamePrefix,
      `${volumeNamePrefix.replace(/[%_\\]/g, '\\$&')}%`,
      volumesOfPools,
      mostVolumes,
    ],
  )
}
