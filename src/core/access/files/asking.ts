import type { Asking } from './exportRules'

/** A host by its addresses, and by the name that leads back from the first of them. */
export interface Sender {
  readonly addresses: readonly string[]
  /** Null where it has none, or nobody has asked. */
  readonly clientName?: string | null
}

/** A host as a server sees it that it asks: rules may be for its address or for its name. */
export const askingFrom = ({ addresses: [clientAddress = ''], clientName = null }: Sender): Asking => ({
  clientAddress,
  clientName,
})
