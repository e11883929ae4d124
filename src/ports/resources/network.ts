import type { StorageInterface } from '@/core/estate'

export interface InterfaceWanted {
  readonly mtu: number
  readonly storage: Omit<StorageInterface, 'isReserved'>
}

export interface InterfaceSeen {
  readonly mtu: number
  readonly storage: StorageInterface | null
}

/** The interfaces of nodes, by which they carry storage to each other. */
export interface Interfaces {
  readonly at: (locator: string) => Promise<InterfaceSeen>
  readonly set: (locator: string, wanted: InterfaceWanted) => Promise<void>
  /** Takes storage off an interface. */
  readonly clear: (locator: string) => Promise<void>
}

export interface SwitchPortState {
  readonly mtu: number
  readonly vlans: readonly number[]
}

export interface SwitchPorts {
  readonly at: (locator: string) => Promise<SwitchPortState>
  readonly set: (locator: string, wanted: SwitchPortState) => Promise<void>
}
