import { byId, type AskedHost, type Estate, type FileService, type Share, type Snapshot } from '@/core/estate'
import type { ChangePorts, Host } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import { hostThatMay } from '../../parts/files/shareTrials'

export type Step = Readonly<{
  step: 'show'
  systemId: string
  shareId: string
  volumeId: string
  locator: string
  name: string
  isShown: boolean
  before: boolean
}>

/** So many are looked into: each takes its time. */
const lookedInto = 3
const sampleBytes = 4096
/** A host reads so much in one answer (bytes). */
const mostRead = 64 * 1024 * 1024

/** Those that hosts find, the latest first. */
export const shownSnapshots = (estate: Estate, share: Share | undefined): readonly Snapshot[] =>
  estate.snapshots
    .filter(each => share !== undefined && each.volumeId === share.volumeId && each.state === 'consistent')
    .sort((a, b) => (b.takenAt ?? '').localeCompare(a.takenAt ?? ''))

/** What the system states, and what a host finds in the directory. */
export async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const stated = await (await ports.of(step.systemId, 'shares')).at(step.locator)
  const evidence: Evidence[] = [
    {
      claim: `The system states that they are ${step.isShown ? 'shown' : 'hidden'}`,
      holds: stated?.snapshotDirectory?.isShown === step.isShown,
      measured: { directory: stated?.snapshotDirectory?.name ?? 'none' },
    },
  ]
  const estate = await ports.estate()
  const share = byId(estate.shares, step.shareId)
  const service = byId(estate.fileServices, share?.fileServiceId)
  const host = share === undefined ? undefined : hostThatMay(estate, share, 'read')
  const directory = stated?.snapshotDirectory?.name
  if (share === undefined || service === undefined || host === undefined || directory === undefined) return evidence
  return [...evidence, ...(await foundBy(host, { share, service, directory, estate, isShown: step.isShown }, ports))]
}

interface Shown {
  readonly share: Share
  readonly service: FileService
  readonly directory: string
  readonly estate: Estate
  readonly isShown: boolean
}

async function foundBy(host: AskedHost, shown: Shown, ports: ChangePorts): Promise<Evidence[]> {
  const { share, service, directory, estate, isShown } = shown
  const agent = await ports.host(host.agentAddress)
  const at = `/mnt/.wendrel/${share.name}`
  const refused = await agent.shares.mount(service.name, share.path, at)
  if (refused !== undefined)
    return [{ claim: `${host.name} mounts ${share.path}`, holds: false, measured: { answered: refused } }]
  const evidence: Evidence[] = []
  try {
    for (const { name } of shownSnapshots(estate, share).slice(0, lookedInto))
      evidence.push(...(await lookedAt(agent, host, share, { name, path: `${at}/${directory}/${name}`, isShown })))
  } finally {
    await agent.unmount(at)
  }
  return evidence
}

interface Looked {
  readonly name: string
  readonly path: string
  readonly isShown: boolean
}

/** What one snapshot lets a host do: look in, read, and never write. */
async function lookedAt(agent: Host, host: AskedHost, share: Share, looked: Looked): Promise<Evidence[]> {
  const { name, path, isShown } = looked
  const as = { uid: share.ownerUid, gid: share.ownerGid, groups: [] }
  const listed = await agent.shares.list(path, as, '')
  const isFound = 'files' in listed
  const evidence: Evidence[] = [
    {
      claim: isShown ? `${host.name} looks into ${name}` : `${host.name} does not find ${name}`,
      holds: isFound === isShown,
      measured: { answered: isFound ? `${listed.files.length} files` : listed.refused },
    },
  ]
  if (!isFound || !isShown) return evidence
  // What its owner may read whole: others' files have rights of their own.
  const file = listed.files.find(({ uid, bytes }) => uid === share.ownerUid && bytes <= mostRead)
  if (file !== undefined) {
    const read = await agent.shares.read(`${path}/${file.path}`, as)
    evidence.push({
      claim: `${host.name} reads a file as ${name} holds it`,
      holds: 'sha256' in read,
      measured: { file: file.path, answered: 'sha256' in read ? read.sha256 : read.refused },
    })
  }
  const written = await agent.shares.write(`${path}/.wendrel-test`, as, sampleBytes, name)
  evidence.push({
    claim: `${host.name} is refused a write into ${name}`,
    holds: 'refused' in written,
    measured: { answered: 'refused' in written ? written.refused : 'written' },
  })
  return evidence
}
