import type { Estate, Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { absent } from './checks'

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
