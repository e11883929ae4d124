import { canBeAsked, type VolumeLimits } from '@/core/estate'
import type { LimitVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts, Host } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { lookFrom } from '../../parts/hostProof'
import { firstStep } from '../../parts/known'
import type { Step } from './plan'

const trialSeconds = 5
/** Systems count by short spans and let a little more through at the beginning of one. */
const tolerance = 1.05
const smallBytes = 4096
const largeBytes = 1_048_576

/** Asks the system for the limit, and a host that sees the volume to get more than it: reading alters nothing. */
export async function prove(intent: Intent, made: Plan<Step>, _facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const { systemId, locator, naa, to } = firstStep(made)
  const seen = await (await ports.of(systemId, 'volumes')).at(locator)
  const stated: Evidence = {
    claim: 'The system states the limit for the volume of this WWN',
    holds: seen?.naa === naa && isSame(seen.limits, to),
    measured: { stated: JSON.stringify(seen?.limits ?? null), asked: JSON.stringify(to), wwn: naa },
  }
  if (to.requestsPerSecond === null && to.bytesPerSecond === null) return [stated]
  const estate = await ports.estate()
  const shown = estate.mappings.filter(each => each.volumeId === intent.volumeId)
  const groups = new Set(shown.map(each => each.hostGroupId))
  const host = estate.hosts.filter(canBeAsked).find(each => groups.has(each.hostGroupId))
  if (host === undefined) return [stated]
  const targets = await (await ports.of(systemId, 'mappings')).targets()
  const { agent, device } = await lookFrom(ports, host, targets, naa)
  if (device === undefined)
    return [stated, { claim: `${host.name} sees the volume`, holds: false, measured: { wwn: naa, seen: 'nothing' } }]
  return [stated, ...(await trials(agent, host.name, naa, to))]
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
