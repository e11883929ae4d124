import type { Estate, Pool, Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { answers, must, rule } from './checks'
import { freeBytesOf } from './fill'
import { inUse } from './inUse'
import { keptCheck } from './keptFor'
import type { Look } from './look'
import { carriesNoFiles, unshared } from './unshared'

/** A volume and the pool of another system to which it goes, or is mirrored. @param look that notes what is read */
export function bothEnds<Intent extends { readonly volumeId: string; readonly poolId: string }>(
  look: Look,
  estate: Estate,
  intent: Intent,
) {
  const volume = look.one('volumes', intent.volumeId)
  const from = look.one('pools', volume?.poolId)
  const to = look.one('pools', intent.poolId)
  const system = look.one('systems', volume?.systemId)
  const toSystem = look.one('systems', to?.systemId)
  return { estate, from, intent, look, movedBytes: mirroredBytes(volume), system, to, toSystem, volume }
}
type Seen = Omit<ReturnType<typeof bothEnds>, 'from' | 'intent' | 'look'>

/** A mirrored volume with its own system, the other one, and what follows it there. @param look that notes what is read */
export function mirroredEnds(look: Look, estate: Estate, volumeId: string) {
  const volume = look.one('volumes', volumeId)
  const system = look.one('systems', volume?.systemId)
  const toSystem = look.one('systems', estate.systems.find(({ serial }) => serial === volume?.mirror?.partner)?.id)
  const far = estate.volumes.find(each => each.naa === volume?.naa && each.systemId === toSystem?.id)
  return { far, system, toSystem, volume }
}

/** That a volume is the source of a mirror whose other end is known, on systems that answer. */
export function mirroredChecks({
  far,
  system,
  toSystem,
  volume,
}: ReturnType<typeof mirroredEnds>): readonly PlanCheck[] {
  return [
    inUse(volume, each => `${each.name} is in use.`),
    ...[system, toSystem].flatMap(each => (each === undefined ? [] : [answers(each)])),
    rule(
      'mirrored',
      volume === undefined || (volume.mirror?.role === 'source' && far !== undefined),
      'It is mirrored.',
      volume?.mirror == null ? 'It is not mirrored.' : 'Where its other end stands is not known here.',
      { remedy: 'Register the other system too.' },
    ),
  ]
}

/** What has to be of both systems, the volume and the pool before any of it can be mirrored. */
export function endChecks(seen: Seen): readonly PlanCheck[] {
  const { system, to, toSystem, volume } = seen
  return [
    inUse(volume, each => `${each.name} is in use.`),
    ...[system, toSystem].flatMap(each => (each === undefined ? [] : [answers(each)])),
    placeCheck(seen),
    ...(to === undefined ? [] : [roomCheck(seen, to), ...keptCheck(to, volume?.application ?? null)]),
    ...aloneChecks(seen),
  ]
}

/** What a mirror takes of the other system: all that is written, or all of a thick volume. */
export const mirroredBytes = (volume: Volume | undefined): bigint =>
  volume === undefined ? 0n : volume.isThin ? volume.writtenBytes : volume.sizeBytes

/** That a pool of a partner is chosen. */
function placeCheck({ system, to, toSystem, volume }: Seen): PlanCheck {
  const isReady = to !== undefined && (to.state === 'fine' || to.state === 'degraded')
  const isElsewhere = to?.systemId !== volume?.systemId
  const isPartner = toSystem !== undefined && system?.partners.includes(toSystem.serial) === true
  const names = [system?.name ?? 'its system', toSystem?.name ?? 'the other'] as const
  return must(
    'pool',
    isReady && isElsewhere && isPartner,
    to === undefined
      ? 'Choose a pool of another system.'
      : !isElsewhere
        ? `${to.name} is on its own system: there it is moved from pool to pool.`
        : !isPartner
          ? `${names[0]} has not been paired with ${names[1]}: it could not mirror to it.`
          : isReady
            ? `${names[0]} mirrors to ${to.name} on ${names[1]}.`
            : `${to.name} is ${to.state}.`,
    { field: 'poolId', remedy: 'Choose a pool of a system with which its own is paired.' },
  )
}

const roomCheck = ({ movedBytes }: Pick<Seen, 'movedBytes'>, to: Pool): PlanCheck =>
  rule(
    'fits',
    movedBytes <= freeBytesOf(to),
    `${to.name} has ${formatBytes(freeBytesOf(to))} left.`,
    `${to.name} has ${formatBytes(freeBytesOf(to))} left; ${formatBytes(movedBytes)} would move.`,
    { field: 'poolId', remedy: 'Choose another pool, or make room there first.' },
  )

/** That nothing of its own system hangs on it, which would be left behind. */
function aloneChecks({ estate, volume }: Pick<Seen, 'estate' | 'volume'>): readonly PlanCheck[] {
  return [
    rule('not-mirrored', volume?.mirror == null, 'It is not mirrored yet.', 'It is mirrored already.', {
      remedy: 'End that mirror first.',
    }),
    rule('alone', volume?.cloneOfId == null, 'It shares with no other volume.', 'It still shares with its source.', {
      remedy: 'Split it first.',
    }),
    rule(
      'no-group',
      volume?.consistencyGroupId == null,
      'It is in no consistency group.',
      'It is in a consistency group, whose snapshots would not be of one instant any more.',
      { remedy: 'Dissolve the group first.' },
    ),
    ...unshared(estate, volume),
    ...carriesNoFiles(estate, volume === undefined ? [] : [volume]),
  ]
}
