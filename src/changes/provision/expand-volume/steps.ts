import { formatBytes } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { Facts } from '../../ChangeKind'
import { lookFrom } from '../../parts/hostProof'
import { waitForTask } from '../../parts/waitForTask'

export type Step = Readonly<
  | {
      step: 'enlarge'
      systemId: string
      volumeLocator: string
      naa: string
      fromBytes: string
      sizeBytes: string
    }
  | {
      step: 'grow'
      systemId: string
      naa: string
      hosts: readonly { readonly name: string; readonly agentAddress: string }[]
    }
>

export const runStep = (step: Step, _context: unknown, ports: ChangePorts): Promise<Facts> =>
  step.step === 'grow' ? grow(step, ports) : enlarge(step, ports)

async function enlarge(step: Extract<Step, { step: 'enlarge' }>, ports: ChangePorts): Promise<Facts> {
  const volumes = await ports.of(step.systemId, 'volumes')
  const sizeBytes = BigInt(step.sizeBytes)
  const now = await volumes.at(step.volumeLocator)
  const isAsked = now !== undefined && now.sizeBytes >= sizeBytes
  // One that was asked for by a run that was cut off may still be at work on the new part.
  const task = !isAsked
    ? (await volumes.enlarge(step.volumeLocator, step.naa, sizeBytes)).task
    : now.isReady
      ? null
      : now.task
  const isDone = async () => {
    const then = await volumes.at(step.volumeLocator)
    return then !== undefined && then.sizeBytes >= sizeBytes && then.isReady
  }
  await waitForTask({ systemId: step.systemId, task, words: 'Zeroing the new part', isDone }, ports)
  return { systemId: step.systemId, naa: step.naa, fromBytes: step.fromBytes, volumeLocator: step.volumeLocator }
}

/** Each host finds the new size of the disk before what stands on it is grown. Growing what has grown does nothing. */
async function grow(step: Extract<Step, { step: 'grow' }>, ports: ChangePorts): Promise<Facts> {
  const targets = await (await ports.of(step.systemId, 'mappings')).targets()
  const grown: string[] = []
  for (const host of step.hosts) {
    const { agent } = await lookFrom(ports, host, targets, step.naa)
    const mounted = (await agent.fileSystems()).find(each => each.naa === step.naa)?.mountedAt
    if (mounted === undefined || mounted === null) continue
    grown.push(`${host.name} ${mounted}: ${formatBytes(await agent.grow(mounted))}`)
  }
  return { grown: grown.join(', ') }
}

export const undoStep = (step: Step): Promise<string> =>
  Promise.resolve(
    step.step === 'grow'
      ? 'A file system that has grown keeps its size.'
      : `The volume keeps the size that it has now, at least ${formatBytes(BigInt(step.fromBytes))}.`,
  )
