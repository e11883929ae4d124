/** Columns of a table that a system's inventory fills, with their types. */
type Columns = Readonly<Record<string, string>>
const bytes = 'numeric'

export const tables: Readonly<
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

export type Table = keyof typeof tables

/**
 * By what an object is known again, wherever it stands: names that its maker or the standard has given it. What has none is known by
 * its place.
 */
export const durableName: Partial<Record<Table, string>> = {
  volumes: 'naa',
  drives: 'serial',
}

/** A field's column. */
export const snake = (name: string) => name.replace(/[A-Z]/g, letter => `_${letter.toLowerCase()}`)
