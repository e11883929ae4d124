import { canBeAsked, type Estate, type VolumeLimits } from '@/core/estate'
import type { ChangePorts, Host } from '@/ports'
import type { Evidence } from '../ChangeKind'
import { lookFrom } from './hostProof'
import { isLifted, type LimitStep } from './limits'

const trialSeconds = 5
/** Systems count by short spans and let a little more through at the beginning of one. */
const tolerance = 1.05
const smallBytes = 4096
const largeBytes = 1_048_576

/** That a system states the limit that a step has set. @param of the volume, in words that follow "for" */
export async function statesLimit(
  { systemId, locator, naa, to }: LimitStep,
  of: string,
  ports: ChangePorts,
): Promise<Evidence> {
  const seen = await (await ports.of(systemId, 'volumes')).at(locator)
  return {
    claim: `The system states the limit for ${of}`,
    holds: seen?.naa === naa && isSame(seen.limits, to),
    measured: { stated: JSON.stringify(seen?.limits ?? null), asked: JSON.stringify(to), wwn: naa },
  }
}

/** Has a host that sees the volume try to get more than its limit: reading alters nothing. Nothing where none sees it, or it has no limit. */
export async function triesMore(
  { systemId, naa, to }: LimitStep,
  volumeId: string,
  estate: Estate,
  ports: ChangePorts,
): Promise<Evidence[]> {
  if (isLifted(to)) return []
  const shown = estate.mappings.filter(each => each.volumeId === volumeId)
  const groups = new Set(shown.map(each => each.hostGroupId))
  const host = estate.hosts.filter(canBeAsked).find(each => groups.has(each.hostGroupId))
  if (host === undefined) return []
  const targets = await (await ports.of(systemId, 'mappings')).targets()
  const { agent, device } = await lookFrom(ports, host, targets, naa)
  if (device === undefined)
    return [{ claim: `${host.name} sees the volume`, holds: false, measured: { wwn: naa, seen: 'nothing' } }]
  return trials(agent, host.name, naa, to)
}

const isSame = (stated: VolumeLimits | null, asked: VolumeLimits) =>
  stated !== null &&
  stated.requestsPerSecond === asked.requestsPerSecond &&
  stated.bytesPerSecond === asked.bytesPerSecond

/** Small requests for a limit on how many, large ones for a limit on how much. */
async function trials(agent: Host, hostName: string, naa: string, to: VolumeLimits): Promise<Evidence[]> {
  const evidence: Evidence[] = []
  const { requestsPerSecond, bytesPerSecond } = to
  if (requestsPerSecond !== null) {
    const { requests, seconds } = await agent.readFast(naa, trialSeconds, smallBytes)
    const got = requests / seconds
    evidence.push({
      claim: `${hostName}, which reads as fast as it can, gets no more than ${requestsPerSecond} requests a second`,
      holds: got > 0 && got <= requestsPerSecond * tolerance,
      measured: { requests: `${requests}`, seconds: seconds.toFixed(2), requestsPerSecond: got.toFixed(1) },
    })
  }
  if (bytesPerSecond !== null) {
    const { requests, seconds } = await agent.readFast(naa, trialSeconds, largeBytes)
    const got = (requests * largeBytes) / seconds
    evidence.push({
      claim: `${hostName}, which reads as fast as it can, gets no more than ${bytesPerSecond} bytes a second`,
      holds: got > 0 && got <= bytesPerSecond * tolerance,
      measured: { bytes: `${requests * largeBytes}`, seconds: seconds.toFixed(2), bytesPerSecond: got.toFixed(0) },
    })
  }
  return evidence
}
