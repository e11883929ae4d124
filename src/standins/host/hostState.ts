import type { Mount } from './HostMounts'
import type { ShareMount } from './HostShares'

/** A disk as the host saw it at its last rescan. */
export interface Device {
  readonly naa: string
  readonly sizeBytes: string
  readonly lun: number
  readonly path: string
}

/** Secrets of a sign-in by CHAP. */
export interface ShownSecrets {
  readonly secret: string
  readonly systemSecret: string | null
}

export interface HostState {
  readonly logins: readonly string[]
  readonly devices: readonly Device[]
  readonly mounts?: readonly Mount[]
  readonly shares?: readonly ShareMount[]
  readonly boots?: number
  /** By what it proves itself where it logs in, and by what its systems must; absent for nothing. */
  readonly signIn?: ShownSecrets | undefined
  /** What whoever asks its agent must show; everybody may ask while there is none. */
  readonly credential?: string
  /** When it is up again, in wall milliseconds. */
  readonly upAt?: number
}

/** What a host of the fleet is. */
export interface HostModel {
  readonly name: string
  readonly operatingSystem: string
  /** By which it is known on the network. */
  readonly addresses: readonly string[]
  readonly initiators: readonly string[]
  /** Whether it asks the name server before the border; absent for the museum's own. */
  readonly asksOutside?: boolean
}
