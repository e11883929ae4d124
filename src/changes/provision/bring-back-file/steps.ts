import { WendrelError } from '@/core/errors'
import type { ChangePorts, Host } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { whileShown } from '../../parts/copies'
import { lookFrom } from '../../parts/hostProof'
import { fact } from '../../parts/known'

export interface Step {
  readonly step: 'copy'
  readonly systemId: string
  readonly naa: string
  readonly hostName: string
  readonly agentAddress: string
  readonly groupName: string
  readonly initiators: readonly string[]
  /** The latest first. */
  readonly snapshots: readonly {
    readonly id: string
    readonly name: string
    readonly locator: string
    readonly naa: string
  }[]
  readonly path: string
  readonly to: string
}
type Source = Step['snapshots'][number]

/** None of the snapshots holds the file. */
class NotInSnapshots extends WendrelError {
  readonly code = 'change.file-not-found'
  constructor({ path, snapshots }: Step) {
    super({
      what: `${path} was not brought back.`,
      why:
        snapshots.length === 1
          ? `${snapshots[0]?.name ?? ''} holds no file of that name.`
          : `None of the ${snapshots.length} latest snapshots holds a file of that name.`,
      remedy: 'Look at how the host names it, or choose an older snapshot.',
    })
  }
}

/** The path lies in no file system that stands on the volume. */
class NotOnVolume extends WendrelError {
  readonly code = 'change.path-elsewhere'
  constructor({ path, hostName }: Step, mountedAt: string | null) {
    super({
      what: `${path} was not brought back.`,
      why:
        mountedAt === null
          ? `${hostName} has nothing mounted of this volume.`
          : `${hostName} has this volume mounted at ${mountedAt}, where the path does not lie.`,
      remedy: 'Give the path as the host names it, below where the volume is mounted.',
    })
  }
}

/** A file system of a snapshot is mounted there while it is asked. */
const besideAt = ({ naa }: Source) => `/run/wendrel-${naa.slice(-12)}`

/** Asks something of the host while it has a snapshot mounted beside, to be read. */
const beside = <T>(step: Step, source: Source, ports: ChangePorts, ask: (agent: Host, place: string) => Promise<T>) =>
  whileShown(
    ports,
    { systemId: step.systemId, snapshotLocator: source.locator, groupName: step.groupName },
    step.initiators,
    `file/${source.naa}`,
    async targets => {
      const { agent } = await lookFrom(ports, step, targets, source.naa)
      const place = besideAt(source)
      await agent.mount(source.naa, place, true)
      try {
        return await ask(agent, place)
      } finally {
        await agent.unmount(place)
      }
    },
  )

/** What of a path lies within the file system on the volume. @throws {NotOnVolume} */
async function within(step: Step, ports: ChangePorts): Promise<{ readonly agent: Host; readonly rest: string }> {
  const targets = await (await ports.of(step.systemId, 'mappings')).targets()
  const { agent } = await lookFrom(ports, step, targets, step.naa)
  const mountedAt = (await agent.fileSystems()).find(each => each.naa === step.naa)?.mountedAt ?? null
  if (mountedAt === null || !step.path.startsWith(`${mountedAt}/`)) throw new NotOnVolume(step, mountedAt)
  return { agent, rest: step.path.slice(mountedAt.length) }
}

export async function bringBack(step: Step, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { agent, rest } = await within(step, ports)
  for (const [index, source] of step.snapshots.entries()) {
    const found = await beside(step, source, ports, async (_, place) => {
      const sum = await agent.readFile(`${place}${rest}`)
      if (sum === undefined) return undefined
      // A run that was cut off may have copied it: then it is there, and the same.
      if (facts['copying'] === source.id && (await agent.readFile(step.to)) === sum) return sum
      await ports.keep({ copying: source.id })
      return agent.copyFile(`${place}${rest}`, step.to)
    })
    if (found !== undefined) return { snapshotId: source.id, snapshotName: source.name, copiedSha256: found }
    await ports.progress((index + 1) / step.snapshots.length, `${index + 1} of ${step.snapshots.length} looked through`)
  }
  throw new NotInSnapshots(step)
}

/** Takes away what was brought back, where it is still what was brought. */
export async function takeAway(step: Step, facts: Facts, ports: ChangePorts): Promise<string | undefined> {
  const copied = facts['copiedSha256']
  if (copied === undefined) return undefined
  const agent = await ports.host(step.agentAddress)
  if ((await agent.readFile(step.to)) !== copied) return `${step.to} has been changed since, and stays.`
  await agent.removeFile(step.to)
  return undefined
}

export async function prove(step: Step, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const source = step.snapshots.find(each => each.id === fact(facts, 'snapshotId'))
  if (source === undefined) return []
  const { agent, rest } = await within(step, ports)
  const inSnapshot = await beside(step, source, ports, (_, place) => agent.readFile(`${place}${rest}`))
  const brought = await agent.readFile(step.to)
  return [
    {
      claim: `${step.hostName} reads at ${step.to} what ${source.name} holds`,
      holds: brought !== undefined && brought === inSnapshot,
      measured: {
        snapshot: source.name,
        snapshotSha256: inSnapshot ?? 'no file',
        broughtSha256: brought ?? 'no file',
      },
    },
  ]
}
