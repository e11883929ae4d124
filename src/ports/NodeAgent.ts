/** A node, through its own node agent: the only way to see whether packets and sectors are what settings say. */
export interface NodeAgent {
  /** The largest packet, up to `mtu`, that goes whole to each address and comes back; null where none does. */
  readonly probe: (
    addresses: readonly string[],
    mtu: number,
  ) => Promise<readonly { readonly address: string; readonly passedMtu: number | null }[]>
  /** How many bytes of a range of a drive's sectors are not zero. */
  readonly nonZeroBytes: (serial: string, offsetBytes: bigint, lengthBytes: number) => Promise<number>
}
