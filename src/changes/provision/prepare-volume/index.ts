import { setTimeout as pause } from 'node:timers/promises'
import { byId, one, type Estate, type AskedHost } from '@/core/estate'
import { prepareVolumeIntent, type PrepareVolumeIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangePorts, Host } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { advise, answers, rule } from '../../parts/checks'
import { isMountPoint, pathWords } from '../../parts/hostPaths'
import { lookFrom } from '../../parts/hostProof'
import { inUse } from '../../parts/inUse'
import { seeingHost } from '../../parts/mapping'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'

interface Ready {
  readonly systemId: string
  readonly volumeId: string
  readonly naa: string
  readonly agentAddress: string
  readonly hostName: string
  readonly path: string
  readonly fileSystem: Intent['fileSystem']
  readonly label: string
  readonly isRestarted: boolean
}
type Step = Readonly<{ step: 'see' | 'format' | 'mount' } & Ready>

const sampleBytes = 3_000_000
const restartSeconds = 90

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const host = byId(estate.hosts, intent.hostId)
  const isSeen = estate.mappings.some(each => each.volumeId === volume?.id && each.hostGroupId === host?.hostGroupId)
  const path = intent.path === '' && volume !== undefined ? `/srv/${volume.name}` : intent.path
  return { host, intent, isSeen, look, path, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { host, look, path, volume } = seen
  return outlined<Step>(estate, {
    title: `Make ${volume?.name ?? 'a volume'} ready on ${host?.name ?? 'a host'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'mountedAt',
        label: `Mounted on ${host?.name ?? 'the host'} at`,
        unit: 'words',
        before: null,
        after: path,
      },
    ],
    oneWay: ['A file system can be made larger later with its volume; xfs is never made smaller.'],
    undo: { possible: true, how: 'It is unmounted; what is on it stays.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [volume?.id, host?.id].filter(id => id !== undefined),
    proof: intent.isRestarted
      ? 'The host writes a file, restarts, mounts the file system by itself, and reads the same back; then the file is removed.'
      : 'The host writes a file, reads the same back, and says that it mounts the file system at every start; then the file is removed.',
  })
}

function checksOf({ host, intent, isSeen, path, system, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    seeingHost(host, isSeen),
    rule(
      'path',
      isMountPoint(path),
      `It is mounted at ${path}.`,
      `${pathWords.slice(0, -1)}, none that the system needs for itself.`,
      { field: 'path' },
    ),
    advise(
      'empty',
      volume?.writtenBytes === 0n,
      'Nothing has been written to it: a file system is made.',
      'Something has been written to it: a file system that stands there is mounted as it is, and nothing is made anew.',
    ),
    advise(
      'restart',
      !intent.isRestarted,
      `${host?.name ?? 'The host'} is not restarted.`,
      `${host?.name ?? 'The host'} restarts: what runs on it is interrupted for a minute or more.`,
      { field: 'isRestarted' },
    ),
  ]
}

function stepsOf({ host, intent, path, volume }: Seen): Outlined<Step>[] {
  if (host?.agentAddress == null || volume === undefined) return []
  const ready: Ready = {
    systemId: volume.systemId,
    volumeId: volume.id,
    naa: volume.naa,
    agentAddress: host.agentAddress,
    hostName: host.name,
    path,
    fileSystem: intent.fileSystem,
    label: volume.name.slice(0, 12),
    isRestarted: intent.isRestarted,
  }
  return [
    { words: `${host.name} logs in and finds it by its WWN`, seconds: 1, step: { step: 'see', ...ready } },
    { words: `Make an ${intent.fileSystem} where none stands`, seconds: 1, step: { step: 'format', ...ready } },
    { words: `Mount it at ${path}, now and at every start`, seconds: 0.5, step: { step: 'mount', ...ready } },
  ]
}

const standsOn = async (agent: Host, naa: string) => (await agent.fileSystems()).find(each => each.naa === naa)

/** Writes a file of its own, restarts where that was asked for, and reads it back. */
async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const agent = await ports.host(step.agentAddress)
  const file = `${step.path}/.wendrel-test`
  const written = await agent.writeFile(file, sampleBytes, `${step.volumeId}/${step.naa}`)
  const before = await agent.bootId()
  const restarted: Evidence[] = []
  if (step.isRestarted) {
    await agent.reboot()
    const after = await bootAfter(agent, before, ports)
    restarted.push({
      claim: `${step.hostName} has restarted`,
      holds: after !== undefined && after !== before,
      measured: { before, after: after ?? 'it did not come back' },
    })
  }
  const mounted = await standsOn(agent, step.naa)
  const read = await agent.readFile(file)
  await agent.removeFile(file)
  return [
    ...restarted,
    {
      claim: `${step.hostName} has it mounted at ${step.path}, and mounts it at every start`,
      holds: mounted?.mountedAt === step.path && mounted.mountsAt === step.path,
      measured: {
        mountedAt: mounted?.mountedAt ?? 'nowhere',
        mountsAt: mounted?.mountsAt ?? 'nowhere',
        fileSystem: mounted?.fileSystem ?? 'none',
        uuid: mounted?.uuid ?? 'none',
      },
    },
    {
      claim: `${step.hostName} reads back the file that it wrote${step.isRestarted ? ' before it restarted' : ''}`,
      holds: read === written,
      measured: { file, bytes: `${sampleBytes}`, writtenSha256: written, readSha256: read ?? 'no file' },
    },
  ]
}

/** Waits for a host to come back from a restart. @returns the mark of its new start; undefined where it did not come back */
async function bootAfter(agent: Host, before: string, ports: ChangePorts): Promise<string | undefined> {
  for (let waited = 0; waited < restartSeconds; waited += 1) {
    await pause(1000, undefined, { signal: ports.signal })
    const now = await agent.bootId().catch(() => undefined)
    if (now !== undefined && now !== before) return now
  }
  return undefined
}

async function seen(step: Step, ports: ChangePorts): Promise<Host> {
  const targets = await (await ports.of(step.systemId, 'mappings')).targets()
  const host = { agentAddress: step.agentAddress } as AskedHost
  return (await lookFrom(ports, host, targets, step.naa)).agent
}

export const prepareVolume: ChangeKind<Intent, Step> = {
  ...prepareVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    const known = { volumeId: step.volumeId }
    if (step.step === 'see') {
      await seen(step, ports)
      return known
    }
    const agent = await ports.host(step.agentAddress)
    if (step.step === 'mount') await agent.mount(step.naa, step.path)
    // A file system that stands there is somebody's: it is never made anew.
    else if ((await standsOn(agent, step.naa)) === undefined) await agent.format(step.naa, step.fileSystem, step.label)
    return known
  },
  async undoStep(step, _context, ports) {
    if (step.step !== 'mount') return undefined
    await (await ports.host(step.agentAddress)).unmount(step.path)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: () => [],
  reverse: () => undefined,
}
