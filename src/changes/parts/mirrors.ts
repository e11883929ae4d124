import type { Pool, System, Volume } from '@/core/estate'
import { WendrelError } from '@/core/errors'
import type { ChangePorts, MirrorSeen } from '@/ports'
import type { Evidence, Facts } from '../ChangeKind'
import { begunOnce } from './begunOnce'
import { driveShare } from './driveShare'
import type { Outlined } from './outline'
import { waitForTask } from './waitForTask'

/** Two systems do not keep a volume alike, or do not say so. */
export class MirrorFailed extends WendrelError {
  readonly code = 'change.mirror-failed'
  constructor(why: string) {
    super({
      what: 'The volume is not mirrored.',
      why,
      remedy: 'Look at both systems for the cause, then draft this again: hosts read and write it where it was.',
    })
  }
}

/** Both ends: where the volume stands, and to which system it goes. */
export interface Ends {
  readonly systemId: string
  readonly toSystemId: string
  readonly volumeId: string
  readonly volumeLocator: string
  readonly naa: string
}
export type MirrorStep = Readonly<
  {
    step: 'mirror'
    partner: string
    /** Of the system on which it stands. */
    ownSerial: string
    poolLocator: string
    name: string
    ratePercent: number
    fromPoolId: string
  } & Ends
>

interface Mirrored {
  readonly volume: Volume
  readonly from: Pool
  readonly to: Pool
  readonly system: System
  readonly toSystem: System
  readonly movedBytes: bigint
  readonly ratePercent: number
}

/** Fills a mirror in a pool of a partner. */
export const mirrorStep = ({
  volume,
  from,
  to,
  system,
  toSystem,
  movedBytes,
  ratePercent,
}: Mirrored): Outlined<MirrorStep> => ({
  words: `Mirror it to ${to.name} on ${toSystem.name}`,
  seconds: 1,
  bytes: movedBytes,
  parts: [driveShare(from, ratePercent), driveShare(to, ratePercent)],
  step: {
    ...{ step: 'mirror', ...endsOf(volume, toSystem), partner: toSystem.serial, poolLocator: to.locator },
    ...{ ownSerial: system.serial, name: volume.name, ratePercent, fromPoolId: from.id },
  },
})

export const endsOf = (volume: Volume, toSystem: System): Ends => ({
  systemId: volume.systemId,
  toSystemId: toSystem.id,
  volumeId: volume.id,
  volumeLocator: volume.locator,
  naa: volume.naa,
})

/** Mirrors a volume and waits until both ends hold the same. @returns where the other end stands, as the other system says too */
export async function mirror(step: MirrorStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, toSystemId, volumeLocator, naa } = step
  const mirrors = await ports.of(systemId, 'mirrors')
  const known = { systemId, toSystemId, fromPoolId: step.fromPoolId }
  const seen = await mirrors.of(volumeLocator)
  if (seen !== undefined && seen.partner !== step.partner) throw new MirrorFailed('It is mirrored to another system.')
  if (seen?.state !== 'alike') {
    const task = await begunOnce(
      'mirroredAfter',
      facts,
      ports,
      () => mirrors.workOn(volumeLocator),
      () => mirrors.begin(volumeLocator, naa, step),
    )
    await keepFar(step, await mirrors.of(volumeLocator), ports)
    const isDone = async () => (await mirrors.of(volumeLocator))?.state === 'alike'
    await waitForTask({ systemId, task, words: 'Mirroring', isDone }, ports)
  }
  const now = await mirrors.of(volumeLocator)
  const farState = await keepFar(step, now, ports)
  if (now?.state !== 'alike' || now.otherLocator === null)
    throw new MirrorFailed('Its system does not say that both ends hold the same.')
  const far = await (await ports.of(toSystemId, 'volumes')).at(now.otherLocator)
  if (farState !== 'alike' || far?.poolLocator !== step.poolLocator)
    throw new MirrorFailed('The other system does not state the volume that it should have.')
  await ports.records.collect(toSystemId)
  return { ...known, toLocator: now.otherLocator }
}

/** Both systems are asked, each by itself: that they hold the same, under the volume's own name. @param far where the other end stands */
export async function proveAlike(
  { naa, systemId, toSystemId, volumeLocator }: Ends,
  far: string,
  ports: ChangePorts,
): Promise<Evidence[]> {
  const said = async (at: string, locator: string, role: string): Promise<Evidence> => {
    const end = await (await ports.of(at, 'mirrors')).of(locator)
    const volume = await (await ports.of(at, 'volumes')).at(locator)
    return {
      claim: role === 'source' ? 'Its system says that both hold the same' : 'The other system says so too',
      holds: end?.role === role && end.state === 'alike' && volume?.naa === naa && volume.isReady,
      measured: { role: end?.role ?? 'none', state: end?.state ?? 'none', wwn: volume?.naa ?? 'nothing' },
    }
  }
  return [await said(systemId, volumeLocator, 'source'), await said(toSystemId, far, 'target')]
}

/**
 * Keeps where the other end stands, before it is full: so that it can be taken away again. What the one system says of the other is
 * believed only where the other says it too: else a system that lies could have somebody's volume there removed.
 * @returns how it stands by the other system; undefined where that knows of no such end
 */
async function keepFar(
  { naa, ownSerial, toSystemId }: MirrorStep,
  seen: MirrorSeen | undefined,
  ports: ChangePorts,
): Promise<MirrorSeen['state'] | undefined> {
  const locator = seen?.otherLocator ?? null
  if (locator === null) return undefined
  const end = await (await ports.of(toSystemId, 'mirrors')).of(locator)
  const far = await (await ports.of(toSystemId, 'volumes')).at(locator)
  if (end?.role !== 'target' || end.partner !== ownSerial || far?.naa !== naa) return undefined
  await ports.keep({ toLocator: locator })
  return end.state
}

/** Ends a mirror that was begun, and removes what had come over. */
export async function takeMirrorBack(step: MirrorStep, facts: Facts, ports: ChangePorts): Promise<undefined> {
  const mirrors = await ports.of(step.systemId, 'mirrors')
  const seen = await mirrors.of(step.volumeLocator)
  if (seen?.state === 'filling') {
    const task = await mirrors.workOn(step.volumeLocator)
    if (task !== null) await (await ports.of(step.systemId, 'tasks')).stop(task)
  } else if (seen?.role === 'source') await mirrors.part(step.volumeLocator, step.naa)
  await removeFar(step, facts['toLocator'], ports)
  await ports.records.collect(step.systemId)
  return undefined
}

/**
 * What had come over is removed where it follows nothing any more: by its place, where both systems have told of it; else by what the
 * other system itself says, which may have been silent until now. What is not of its name is left alone.
 */
async function removeFar(step: MirrorStep, known: string | undefined, ports: ChangePorts): Promise<void> {
  const { name, naa, ownSerial, toSystemId } = step
  const mirrors = await ports.of(toSystemId, 'mirrors')
  const locator = known ?? (await mirrors.follower(naa))
  if (locator === undefined) return
  const volumes = await ports.of(toSystemId, 'volumes')
  const far = await volumes.at(locator)
  const end = await mirrors.of(locator)
  const isLeft = end === undefined ? known !== undefined : end.state === 'broken' && end.partner === ownSerial
  if (far !== undefined && far.name === name && isLeft) await volumes.remove(locator, far.naa)
  await ports.records.collect(toSystemId)
  await ports.records.gone(toSystemId, [locator])
}
