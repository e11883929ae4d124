import type { Volume } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { rule } from './checks'

/** That no volume among these is an image, which nobody may write. */
export function noImage(volumes: readonly (Volume | undefined)[]): PlanCheck[] {
  const image = volumes.find(each => each?.isImage === true)
  return image === undefined
    ? []
    : [
        rule('no-image', false, '', `${image.name} is an image, which nobody writes.`, {
          remedy: 'Clone it, and use the clone; or make a volume of it again.',
        }),
      ]
}
