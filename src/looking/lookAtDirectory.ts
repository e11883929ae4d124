import { identifyDirectory } from '@/connectors'
import { settings, type Scope } from '@/records'

/** Sees who answers as a directory, and by which certificate; nothing is told to it. @throws what the connector throws */
export async function lookAtDirectory(
  scope: Scope,
  address: string,
  stop: AbortSignal,
): ReturnType<typeof identifyDirectory> {
  const { addresses: allowedNetworks } = await settings(scope)
  return identifyDirectory({ address: address.trim(), allowedNetworks }, stop)
}
