/** Who answers at an address, before it is told anything. */
export interface Identity {
  readonly address: string
  readonly isEncrypted: boolean
  readonly certificateFingerprint: string | null
  readonly certificateTrouble: string | null
  readonly maker: string | null
  readonly model: string | null
  readonly uuid: string | null
  readonly redfishVersion: string
}
