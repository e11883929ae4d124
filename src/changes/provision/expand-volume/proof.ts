import { canBeAsked, type Host as HostRecord } from '@/core/estate'
import type { ExpandVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts, Host, HostFileSystem } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { lookFrom, readsBackFile, seesIt, writesAndReadsBack } from '../../parts/hostProof'
import { fact, firstStep } from '../../parts/known'
import type { Step } from './steps'

/** Asks the system for the new size, and hosts that see it; one of them writes to it. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const estate = await ports.estate()
  const naa = fact(facts, 'naa')
  const step = firstStep(plan)
  const sizeBytes = BigInt(step.step === 'enlarge' ? step.sizeBytes : '0')
  const groups = new Set(
    estate.mappings.filter(mapping => mapping.volumeId === intent.volumeId).map(mapping => mapping.hostGroupId),
  )
  const hosts = estate.hosts.filter(canBeAsked).filter(host => groups.has(host.hostGroupId))
  const systemId = fact(facts, 'systemId')
  const volumes = await ports.of(systemId, 'volumes')
  const stated = await volumes.at(fact(facts, 'volumeLocator'))
  const evidence: Evidence[] = [
    {
      claim: 'The system states the new size, and that all of it is ready',
      holds: stated?.naa === naa && stated.sizeBytes === sizeBytes && stated.isReady,
      measured: {
        state: stated === undefined ? 'not there' : stated.isReady ? 'ready' : 'not ready',
        statedBytes: `${stated?.sizeBytes ?? 'nothing'}`,
        askedBytes: `${sizeBytes}`,
      },
    },
  ]
  const targets = hosts.length === 0 ? [] : await (await ports.of(systemId, 'mappings')).targets()
  const isGrown = plan.steps.some(each => each.step.step === 'grow')
  const grown: Grown = { naa, isGrown, fromBytes: BigInt(fact(facts, 'fromBytes')), sizeBytes }
  let isTried = false
  for (const host of hosts) {
    const { agent, device } = await lookFrom(ports, host, targets, naa)
    evidence.push(seesIt(host, device, naa, sizeBytes))
    if (device === undefined) continue
    const stands = (await agent.fileSystems()).find(each => each.naa === naa)
    evidence.push(...(await standsGrown(agent, host, stands, grown)))
    if (stands === undefined && !isTried)
      evidence.push(...(await writesAndReadsBack(agent, host, naa, grown.fromBytes, sizeBytes, naa)))
    isTried = true
  }
  return evidence
}

interface Grown {
  readonly naa: string
  readonly isGrown: boolean
  readonly fromBytes: bigint
  readonly sizeBytes: bigint
}

/** What stands on the disk is only ever tried by a file of its own: its blocks are its users'. */
async function standsGrown(
  agent: Host,
  host: HostRecord,
  stands: HostFileSystem | undefined,
  { naa, isGrown, sizeBytes }: Grown,
): Promise<Evidence[]> {
  if (stands?.mountedAt == null || !isGrown) return []
  return [
    {
      claim: `The file system on ${host.name} has grown with it`,
      holds: stands.sizeBytes === sizeBytes,
      measured: {
        mountedAt: stands.mountedAt,
        fileSystem: stands.fileSystem,
        bytes: `${stands.sizeBytes}`,
        volumeBytes: `${sizeBytes}`,
      },
    },
    await readsBackFile(agent, host, stands.mountedAt, naa),
  ]
}
