import type { StorageInterface } from '@/core/estate'
import type { ChangePorts, NodeRow } from '@/ports'
import type { Facts, StepContext } from '../ChangeKind'
import { rowPort, switchOnAsFarAsPossible, switchRestartService } from '../parts/nodes'

type Wanted = Omit<StorageInterface, 'isReserved'>
interface PortStep {
  readonly locator: string
  readonly mtu: number
  readonly storage: Wanted
  readonly before: { readonly mtu: number; readonly storage: StorageInterface | null }
}

export type Step =
  | {
      readonly step: 'pause-restart' | 'resume-restart'
      readonly systemId: string
      readonly nodeLocators: readonly string[]
    }
  | { readonly step: 'set'; readonly systemId: string; readonly ports: readonly PortStep[] }

export async function runStep(step: Step, _: StepContext, ports: ChangePorts): Promise<Facts> {
  const row = await rowPort(ports, step.systemId)
  if (step.step !== 'set') {
    await switchRestartService(row, step.nodeLocators, step.step === 'resume-restart', ports)
    return {}
  }
  for (const [index, port] of step.ports.entries()) {
    if (!(await isAsWanted(row, port))) await row.setInterface(port.locator, { mtu: port.mtu, storage: port.storage })
    await ports.progress((index + 1) / step.ports.length, 'Setting ports')
  }
  return {}
}

export async function isAsWanted(row: NodeRow, { locator, mtu, storage }: PortStep): Promise<boolean> {
  const now = await row.interfaceAt(locator)
  const own = now.storage
  if (own === null || now.mtu !== mtu || own.vlan !== storage.vlan || own.origin !== storage.origin) return false
  if (storage.origin === 'leased') return own.family === storage.family
  return own.address === storage.address && own.prefixLength === storage.prefixLength
}

export async function undoStep(step: Step, _: StepContext, ports: ChangePorts): Promise<string | undefined> {
  const row = await rowPort(ports, step.systemId)
  if (step.step !== 'set')
    return step.step === 'pause-restart' ? switchOnAsFarAsPossible(row, step.nodeLocators) : undefined
  for (const { locator, before } of step.ports) {
    if (before.storage === null) await row.clearInterface(locator)
    else await row.setInterface(locator, { mtu: before.mtu, storage: before.storage })
  }
  return undefined
}
