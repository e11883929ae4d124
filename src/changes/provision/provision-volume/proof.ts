import type { ProvisionVolumeIntent as Intent } from '@/core/intents'
import { canBeAsked } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { beyondEvidence } from '../../parts/beyond'
import { initiatorsOf } from '../../parts/mapping'
import { lookFrom, seesIt, seesItNot, writesAndReadsBack } from '../../parts/hostProof'
import { statedMapping } from '../../parts/statedMapping'
import type { Step } from './steps'
import { fact, firstStep } from '../../parts/known'

/** Asks the hosts, not the system that was told: one of the group writes and reads back, one outside must see nothing. */
export async function prove(_intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const estate = await ports.estate()
  const naa = fact(facts, 'naa')
  const create = firstStep(plan)
  const { systemId } = create
  const sizeBytes = create.step === 'create' ? BigInt(create.sizeBytes) : 0n
  const volumes = await ports.of(systemId, 'volumes')
  const stated = await volumes.at(fact(facts, 'volumeLocator'))
  const evidence: Evidence[] = [
    {
      claim: 'The system states the volume with the size that was asked for',
      holds: stated !== undefined && stated.naa === naa && stated.sizeBytes === sizeBytes && stated.isReady,
      measured: { statedBytes: `${stated?.sizeBytes ?? 'nothing'}`, askedBytes: `${sizeBytes}`, wwn: naa },
    },
  ]
  const map = plan.steps.map(each => each.step).find(step => step.step === 'map')
  const group = map?.step === 'map' ? estate.hostGroups.find(({ name }) => name === map.groupName) : undefined
  if (group === undefined) return evidence
  const mappings = await ports.of(systemId, 'mappings')
  if (map?.step === 'map') evidence.push(...(await beyondEvidence(mappings, map.groupName, map.kept)))
  const targets = await mappings.targets()
  const askable = estate.hosts.filter(canBeAsked)
  const inside = askable.filter(host => host.hostGroupId === group.id)
  if (inside.length === 0)
    evidence.push(
      await statedMapping(ports, systemId, fact(facts, 'volumeLocator'), {
        name: group.name,
        initiators: initiatorsOf(estate, group),
      }),
    )
  for (const [index, host] of inside.entries()) {
    const { agent, device } = await lookFrom(ports, host, targets, naa)
    evidence.push(seesIt(host, device, naa, sizeBytes))
    if (device !== undefined && index === 0)
      evidence.push(...(await writesAndReadsBack(agent, host, naa, 0n, sizeBytes, facts['volumeId'] ?? naa)))
  }
  const outside = askable.find(host => host.hostGroupId !== group.id)
  if (outside !== undefined)
    evidence.push(seesItNot(outside, (await lookFrom(ports, outside, targets, naa)).device, naa))
  return evidence
}
