/** The parts of a simulated row of bare nodes as they are kept in the store. Times are fleet milliseconds. */
export interface NodeEntity {
  readonly id: string
  readonly hostName: string
  readonly rack: string
  readonly serial: string
  readonly model: string
  readonly firmware: string
  readonly isUp: boolean
  /** When it went down; null while it is up. */
  readonly downSince: number | null
  /** It restarts until then; null while it does not. */
  readonly restartingUntil: number | null
  readonly clockOffsetSeconds: number
  readonly isRestartServiceOn: boolean
  readonly mostCapacityDrives: number
}

export interface StorageInterfaceEntity {
  readonly family: 'IPv4' | 'IPv6'
  readonly address: string | null
  readonly prefixLength: number
  readonly origin: 'static' | 'leased'
  readonly isReserved: boolean
  readonly vlan: number | null
}

export interface NodePortEntity {
  readonly id: string
  readonly nodeId: string
  readonly name: string
  readonly mac: string
  readonly speedGbps: number
  readonly isUp: boolean
  readonly mtu: number
  readonly traffic: readonly string[]
  readonly switchPortId: string
  /** Whether the lease service keeps an address for its MAC. */
  readonly hasReservation: boolean
  readonly storage: StorageInterfaceEntity | null
}

export interface SwitchEntity {
  readonly id: string
  readonly name: string
  readonly model: string
  readonly firmware: string
}

export interface SwitchPortEntity {
  readonly id: string
  readonly switchId: string
  readonly name: string
  readonly mtu: number
  readonly vlans: readonly number[]
  readonly isUp: boolean
  readonly peerPortId: string | null
}

/** The nodes that work as one; there is at most one such union in a row. */
export interface ClusterEntity {
  readonly id: string
  readonly name: string
  readonly description: string
  readonly nodeIds: readonly string[]
  readonly isReady: boolean
}
