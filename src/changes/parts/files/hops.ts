import type { AskedHost, FileService } from '@/core/estate'
import { filePorts } from '@/core/network'
import type { ChangePorts } from '@/ports'
import type { Evidence } from '../../ChangeKind'

/**
 * The way from a host to a file service, hop by hop: its name, the address to which that leads, and whether it gets through to there;
 * where it does not, which of the service's other addresses it gets through to. What follows behind a hop that fails is not tried.
 */
export async function hops(
  { host }: Pick<ChangePorts, 'host'>,
  asking: AskedHost,
  service: FileService,
  over: keyof typeof filePorts,
): Promise<Evidence[]> {
  const { shares } = await host(asking.agentAddress)
  const addresses = service.instances.map(({ address }) => address)
  const named = await shares.connect(service.name)
  const looked = named.lookupMilliseconds
  const evidence: Evidence[] = [
    {
      claim: `${asking.name} looks up ${service.name}, and is led to one of its addresses`,
      holds: named.address !== null && addresses.includes(named.address),
      measured: {
        address: named.address ?? 'none',
        ...(looked === undefined ? {} : { milliseconds: looked.toFixed(2) }),
      },
    },
  ]
  if (named.address === null || !addresses.includes(named.address)) return evidence
  const open: string[] = []
  if (!named.isOpen) for (const address of addresses) if ((await shares.connect(address)).isOpen) open.push(address)
  evidence.push({
    claim: `${asking.name} gets through to ${named.address}, port ${filePorts[over]}`,
    holds: named.isOpen,
    measured: {
      from: asking.addresses.join(', '),
      milliseconds: (named.milliseconds - (looked ?? 0)).toFixed(2),
      ...(named.isOpen ? {} : { getsThroughTo: open.join(', ') || 'none of its addresses' }),
    },
  })
  return evidence
}
