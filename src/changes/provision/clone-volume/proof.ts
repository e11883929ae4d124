import { byId, canBeAsked } from '@/core/estate'
import type { CloneVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { sameBytes, whileShown } from '../../parts/copies'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { fact } from '../../parts/known'
import { initiatorsOf } from '../../parts/mapping'
import { statedMapping } from '../../parts/statedMapping'
import type { Step } from './steps'

/** Asks a host that is to use the clone: what it reads of it must be what it reads of the snapshot. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const estate = await ports.estate()
  const [systemId, naa] = [fact(facts, 'systemId'), fact(facts, 'naa')]
  const snapshot = await (await ports.of(systemId, 'snapshots')).at(fact(facts, 'snapshotLocator'))
  const stated = await (await ports.of(systemId, 'volumes')).at(fact(facts, 'cloneLocator'))
  const enlarged = plan.steps.map(({ step }) => step).find(step => step.step === 'enlarge')
  const sizeBytes = enlarged?.step === 'enlarge' ? BigInt(enlarged.sizeBytes) : snapshot?.sizeBytes
  const evidence: Evidence[] = [
    {
      claim: 'The system states the clone, with the size that it was to have',
      holds: stated !== undefined && stated.naa === naa && stated.sizeBytes === sizeBytes && stated.isReady,
      measured: {
        wwn: naa,
        bytes: `${stated?.sizeBytes ?? 'nothing'}`,
        snapshotBytes: `${snapshot?.sizeBytes ?? 'nothing'}`,
      },
    },
  ]
  const group = byId(estate.hostGroups, intent.hostGroupId)
  const host = estate.hosts.filter(canBeAsked).find(each => each.hostGroupId === group?.id)
  const isMapped = plan.steps.some(({ step }) => step.step === 'map')
  if (group === undefined || !isMapped || snapshot === undefined || stated === undefined) return evidence
  if (host === undefined)
    return [
      ...evidence,
      await statedMapping(ports, systemId, stated.locator, {
        name: group.name,
        initiators: initiatorsOf(estate, group),
      }),
    ]
  const shown = { systemId, snapshotLocator: snapshot.locator, groupName: group.name }
  return whileShown(ports, shown, initiatorsOf(estate, group), `proof/${naa}`, async targets => [
    ...evidence,
    seesIt(host, (await lookFrom(ports, host, targets, naa)).device, naa, stated.sizeBytes),
    await sameBytes(ports, host, targets, [naa, snapshot.naa], snapshot.sizeBytes, 'the clone and the snapshot'),
  ])
}
