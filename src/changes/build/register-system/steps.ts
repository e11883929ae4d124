import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { fact } from '../../parts/known'

export type Step = Readonly<{ step: 'enrol'; probeId: string; name: string; siteId: string } | { step: 'read' }>

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  if (step.step === 'enrol') {
    return {
      systemId: await ports.records.enrolSystem(step.probeId, step.name, step.siteId === '' ? null : step.siteId, key),
    }
  }
  await ports.records.collect(fact(facts, 'systemId'))
  return {}
}

export async function undoStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'enrol' && facts['systemId'] !== undefined) await ports.records.forgetSystem(facts['systemId'])
}
