import { nameByPattern, type AskedHost, type Estate, type Pool, type Snapshot, type Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { snapshotName } from '@/core/snapshots'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../ChangeKind'
import { absent, must } from './checks'
import { lookFrom } from './hostProof'
import { found } from './known'
import type { Outlined } from './outline'
import { unmapped } from './unmapped'
import { waitForTask } from './waitForTask'
import { askedToProve } from './signIn'

/** Takes a snapshot of a volume. */
export type TakeStep = Readonly<{
  step: 'take'
  systemId: string
  volumeId: string
  volumeLocator: string
  naa: string
  poolLocator: string
  name: string
  reason: string
}>

/** For what has been acknowledged to reach the drives. */
const flushSeconds = 1.2

export const takeStep = (
  volume: Volume,
  pool: Pool,
  name: string,
  reason: string,
  words = `Take ${name}`,
): Outlined<TakeStep> => ({
  words,
  seconds: flushSeconds,
  step: {
    step: 'take',
    systemId: volume.systemId,
    volumeId: volume.id,
    volumeLocator: volume.locator,
    naa: volume.naa,
    poolLocator: pool.locator,
    name,
    reason,
  },
})

/** Looks for it by its name first; what the system has begun is waited for. */
export async function take(step: TakeStep, ports: ChangePorts): Promise<Facts> {
  const snapshots = await ports.of(step.systemId, 'snapshots')
  const made =
    (await snapshots.named(step.volumeLocator, step.name)) ??
    (await snapshots.take(step.volumeLocator, step.naa, step.poolLocator, step.name))
  const isDone = async () => (await snapshots.at(made.locator))?.isConsistent === true
  await waitForTask({ systemId: step.systemId, task: made.task, words: 'Reaching the drives', isDone }, ports)
  const seen = await snapshots.at(made.locator)
  await ports.records.collect(step.systemId)
  const snapshotId = await ports.records.idAt(step.systemId, made.locator)
  if (snapshotId !== undefined && step.reason !== '')
    await ports.records.noteSnapshots([snapshotId], { reason: step.reason })
  return found({
    systemId: step.systemId,
    volumeId: step.volumeId,
    snapshotLocator: made.locator,
    snapshotNaa: seen?.naa,
    snapshotId,
    ...(seen?.takenAt === null || seen === undefined ? {} : { takenAt: seen.takenAt }),
  })
}

/** A snapshot that a step has made is not needed by what is taken back. */
export async function untake(step: TakeStep, ports: ChangePorts): Promise<undefined> {
  const snapshots = await ports.of(step.systemId, 'snapshots')
  const made = await snapshots.named(step.volumeLocator, step.name)
  const seen = made === undefined ? undefined : await snapshots.at(made.locator)
  if (made === undefined || seen === undefined) return
  await snapshots.remove(made.locator, seen.naa)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [made.locator])
}

const namesOf = (estate: Estate) => new Set([...estate.snapshots, ...estate.volumes].map(({ name }) => name))

/** A name by the moment for a snapshot of a volume, which nothing has yet: what is suggested to whoever takes one. */
export function momentName(estate: Estate, volume: Volume | undefined, now: Date): string {
  if (volume === undefined) return ''
  const taken = namesOf(estate)
  for (let seconds = 0; ; seconds += 1) {
    const name = snapshotName(volume.name, new Date(now.getTime() + seconds * 1000))
    if (!taken.has(name)) return name
  }
}

const mostLetters = 48

/** A name for a snapshot that a change takes by itself. It counts and does not tell the time: what is carried out is what was seen. */
export const countedName = (estate: Estate, volume: Volume, word: string): string =>
  nameByPattern(`${volume.name.slice(0, mostLetters)}.${word}-{nn}`, {}, namesOf(estate))

/** That nothing has a name yet, among volumes and snapshots: a system keeps both in one list. */
export const nameFree = (estate: Estate, name: string, ownId?: string): PlanCheck =>
  absent(
    'name-free',
    [...estate.volumes, ...estate.snapshots].find(each => each.name === name && each.id !== ownId),
    'The name is free.',
    each =>
      `${'takenAt' in each ? 'A snapshot' : 'A volume'} of that name exists${'state' in each && each.state === 'holding' ? ', in holding' : ''}.`,
    { field: 'name' },
  )

/** That a snapshot of the volume is chosen, and that it can be used. */
export function usable(snapshot: Snapshot | undefined, volume: Volume | undefined): PlanCheck {
  if (snapshot === undefined || snapshot.volumeId !== volume?.id)
    return must('snapshot', false, 'Choose one of its snapshots.', { field: 'snapshotId' })
  return must(
    'snapshot',
    snapshot.state === 'consistent',
    snapshot.state === 'consistent'
      ? `${snapshot.name} is consistent.`
      : `${snapshot.name} is ${snapshot.state}: the system has not said yet that it is consistent.`,
    { field: 'snapshotId', remedy: 'Wait until it is, or choose another.' },
  )
}

const sampleBytes = 1_048_576
const sample = BigInt(sampleBytes)
const samplePlaces = 16n

/** Where both disks are read: the beginning and the end, and places between them, a mebibyte each. */
function placesIn(sizeBytes: bigint): bigint[] {
  const last = sizeBytes / sample - 1n
  if (last < samplePlaces)
    return Array.from({ length: Number(last < 0n ? 0n : last + 1n) }, (_, at) => BigInt(at) * sample)
  return Array.from({ length: Number(samplePlaces) }, (_, at) => ((last * BigInt(at)) / (samplePlaces - 1n)) * sample)
}

/** The SHA-256 of each of the places at which a host reads a disk. */
export async function sumsOf(
  ports: ChangePorts,
  host: Pick<AskedHost, 'agentAddress'>,
  targets: readonly string[],
  naa: string,
  sizeBytes: bigint,
): Promise<readonly string[]> {
  const { agent } = await lookFrom(ports, host, targets, naa)
  const sums: string[] = []
  for (const place of placesIn(sizeBytes)) sums.push(await agent.read(naa, place, sampleBytes))
  return sums
}

/** That a host reads the same bytes from two disks that it sees. @param places in bytes that are compared besides */
export async function sameBytes(
  ports: ChangePorts,
  host: AskedHost,
  targets: readonly string[],
  [first, second]: readonly [string, string],
  sizeBytes: bigint,
  words: string,
): Promise<Evidence> {
  const { agent } = await lookFrom(ports, host, targets, first)
  const places = placesIn(sizeBytes)
  const differ: bigint[] = []
  for (const place of places) {
    const sums = [await agent.read(first, place, sampleBytes), await agent.read(second, place, sampleBytes)]
    if (sums[0] !== sums[1]) differ.push(place)
  }
  return {
    claim: `${host.name} reads the same bytes from ${words}`,
    holds: differ.length === 0 && places.length > 0,
    measured: {
      comparedPlaces: `${places.length}`,
      bytesEach: `${sampleBytes}`,
      differ: differ.length === 0 ? 'none' : differ.join(', '),
    },
  }
}

/**
 * Shows a snapshot to hosts while something is asked of them, and takes it from them again; one that somebody has shown them stays. What
 * was shown under the key by a process that died is taken away too. They are only ever hosts that see, or are to see, all that it holds.
 */
export async function whileShown<T>(
  ports: ChangePorts,
  shown: { readonly systemId: string; readonly snapshotLocator: string; readonly groupName: string },
  initiators: readonly string[],
  key: string,
  ask: (targets: readonly string[]) => Promise<T>,
): Promise<T> {
  const mappings = await ports.of(shown.systemId, 'mappings')
  await askedToProve(ports, shown.systemId, initiators)
  const { locator } = await mappings.make(shown.snapshotLocator, shown.groupName, initiators, key, true)
  const isOurs = await mappings.isMadeBy(locator, key)
  try {
    return await ask(await mappings.targets())
  } finally {
    if (isOurs) await unmapped(shown.snapshotLocator, { locator, groupName: shown.groupName }, shown.systemId, ports)
  }
}
