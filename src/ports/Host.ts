export interface HostIdentity {
  readonly name: string
  readonly operatingSystem: string
  readonly initiators: readonly string[]
}

export interface HostDevice {
  readonly naa: string
  readonly sizeBytes: bigint
  readonly lun: number
  readonly path: string
}

/** A host, through its own agent: the only way to prove that storage is what its user would find. */
export interface Host {
  readonly identity: () => Promise<HostIdentity>
  readonly login: (target: string) => Promise<void>
  readonly rescan: () => Promise<readonly HostDevice[]>
  /** Writes bytes that follow from a seed; @returns their SHA-256 as the host computed it before sending */
  readonly write: (naa: string, offsetBytes: bigint, lengthBytes: number, seed: string) => Promise<string>
  /** @returns the SHA-256 of what is stored */
  readonly read: (naa: string, offsetBytes: bigint, lengthBytes: number) => Promise<string>
  readonly discard: (naa: string, offsetBytes: bigint, lengthBytes: number) => Promise<void>
}
