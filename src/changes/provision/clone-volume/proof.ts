import { byId } from '@/core/estate'
import type { CloneVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { sameBytes, whileShown } from '../../parts/copies'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { fact } from '../../parts/known'
import { initiatorsOf } from '../../parts/mapping'
import type { Step } from './steps'

/** Asks a host that is to use the clone: what it reads of it must be what it reads of the snapshot. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const estate = await ports.estate()
  const [systemId, naa] = [fact(facts, 'systemId'), fact(facts, 'naa')]
  const snapshot = await (await ports.of(systemId, 'snapshots')).at(fact(facts, 'snapshotLocator'))
  const stated = await (await ports.of(systemId, 'volumes')).at(fact(facts, 'cloneLocator'))
  const evidence: Evidence[] = [
    {
      claim: 'The system states the clone, as large as the snapshot',
      holds: stated !== undefined && stated.naa === naa && stated.sizeBytes === snapshot?.sizeBytes && stated.isReady,
      measured: {
        wwn: naa,
        bytes: `${stated?.sizeBytes ?? 'nothing'}`,
        snapshotBytes: `${snapshot?.sizeBytes ?? 'nothing'}`,
      },
    },
  ]
  const group = byId(estate.hostGroups, intent.hostGroupId)
  const host = estate.hosts.find(each => each.hostGroupId === group?.id && each.initiators.length > 0)
  if (group === undefined || host === undefined || snapshot === undefined || stated === undefined) return evidence
  const isMapped = plan.steps.some(({ step }) => step.step === 'map')
  if (!isMapped) return evidence
  const shown = { systemId, snapshotLocator: snapshot.locator, groupName: group.name }
  return whileShown(ports, shown, initiatorsOf(estate, group), `proof/${naa}`, async targets => [
    ...evidence,
    seesIt(host, (await lookFrom(ports, host, targets, naa)).device, naa, stated.sizeBytes),
    await sameBytes(ports, host, targets, [naa, snapshot.naa], stated.sizeBytes, 'the clone and the snapshot'),
  ])
}
