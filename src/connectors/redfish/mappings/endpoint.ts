import { initiatorName, type InitiatorName } from '@/core/hosts'

/** How Redfish names each kind of name, and the protocol by which who bears it logs in. Source: DSP0268, Endpoint and Resource. */
const forms: Readonly<Record<InitiatorName['kind'], { readonly format: string; readonly protocol: string }>> = {
  IQN: { format: 'iQN', protocol: 'iSCSI' },
  EUI: { format: 'EUI', protocol: 'iSCSI' },
  NAA: { format: 'NAA', protocol: 'iSCSI' },
  WWPN: { format: 'FC_WWN', protocol: 'FC' },
  NQN: { format: 'NQN', protocol: 'NVMeOverFabrics' },
}

/** An endpoint for an initiator, as a system is asked to make it. A name that is none of a known kind is sent as an IQN, and refused there. */
export function newEndpoint(initiator: string): object {
  const read = initiatorName(initiator)
  const { format, protocol } = forms['kind' in read ? read.kind : 'IQN']
  return {
    Name: initiator,
    EndpointProtocol: protocol,
    Identifiers: [{ DurableNameFormat: format, DurableName: initiator }],
  }
}

/** The name of an endpoint in the spelling in which it is kept: systems write WWPNs with and without colons, in both cases. */
export function nameOf(endpoint: {
  readonly Identifiers: readonly { readonly DurableName?: string | null | undefined }[]
}): string {
  const stated = endpoint.Identifiers[0]?.DurableName ?? ''
  const read = initiatorName(stated)
  return 'name' in read ? read.name : stated
}
