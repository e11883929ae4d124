import { byId, canBeAsked } from '@/core/estate'
import type { MoveVolumeIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { fact } from '../../parts/known'
import { sumsNow, type MoveStep, type Step, type SumStep } from './steps'

/** Asks the system where it comes from now, and the host that read it before whether it reads the same. */
export async function prove(intent: Intent, plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const steps = plan.steps.map(each => each.step)
  const moved = steps.find((step): step is MoveStep => step.step === 'move')
  const summed = steps.find((step): step is SumStep => step.step === 'sum')
  if (moved === undefined) return []
  const stated = await (await ports.of(moved.systemId, 'volumes')).at(moved.volumeLocator)
  const evidence: Evidence[] = [
    {
      claim: 'The system states that it comes from its new pool, under its own WWN and with its size',
      holds:
        stated?.poolLocator === moved.poolLocator &&
        stated.naa === moved.naa &&
        `${stated.sizeBytes}` === moved.sizeBytes &&
        stated.isReady,
      measured: {
        pool: stated?.poolLocator ?? 'nothing',
        wwn: stated?.naa ?? 'nothing',
        bytes: `${stated?.sizeBytes ?? 'nothing'}`,
      },
    },
  ]
  return summed === undefined ? evidence : [...evidence, ...(await readAgain(intent, summed, facts, ports))]
}

async function readAgain(intent: Intent, step: SumStep, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const { hosts, volumes } = await ports.estate()
  const host = hosts.filter(canBeAsked).find(each => each.agentAddress === step.agentAddress)
  const before = fact(facts, 'sums').split(' ')
  const after = await sumsNow(step, facts, ports)
  const differ = before.filter((sum, index) => sum !== after[index]).length
  const sameBytes: Evidence = {
    claim: `${step.hostName} reads from its new pool what it read before the move`,
    holds: before.length > 0 && before.length === after.length && differ === 0,
    measured: {
      comparedPlaces: `${before.length}`,
      differ: differ === 0 ? 'none' : `${differ}`,
      firstSha256: after[0] ?? 'none',
    },
  }
  if (host === undefined) return [sameBytes]
  const targets = await (await ports.of(step.systemId, 'mappings')).targets()
  const { device } = await lookFrom(ports, host, targets, step.naa)
  const sizeBytes = byId(volumes, intent.volumeId)?.sizeBytes ?? BigInt(step.sizeBytes)
  return [seesIt(host, device, step.naa, sizeBytes), sameBytes]
}
