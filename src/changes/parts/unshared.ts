import type { Estate, Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { absent } from './checks'

/** That no file system of its system stands on a volume that hosts are to see as a disk: they would write over it. */
export function carriesNoFiles({ fileSystems }: Estate, volumes: readonly Volume[]): readonly PlanCheck[] {
  const ids = new Set(volumes.map(({ id }) => id))
  const found = fileSystems.find(({ volumeId }) => ids.has(volumeId))
  const on = volumes.find(({ id }) => id === found?.volumeId)
  return [
    absent(
      'no-file-system',
      found,
      'No file system of its system stands on it.',
      each => `${on?.name ?? 'It'} carries ${each.name}, whose files a host would write over.`,
    ),
  ]
}

/** That no share's files stand on a volume: hosts would find their files gone, or two would write what one keeps. */
export function unshared(estate: Estate, volume: Volume | undefined): readonly PlanCheck[] {
  const share = estate.shares.find(each => each.volumeId === volume?.id)
  return volume === undefined
    ? []
    : [
        absent('unshared', share, 'It carries no share.', each => `It carries the files of share ${each.name}.`, {
          remedy: 'Take the share away first.',
        }),
      ]
}
