import type { VolumeEntity } from './entities'
import type { SimulatedArray } from './SimulatedArray'

/** The other end of a mirror. */
export interface OtherEnd {
  readonly array: SimulatedArray
  readonly volume: VolumeEntity
}

/** Whether an array answers its partners. */
export const answers = (array: SimulatedArray) =>
  !array.faults.all().some(({ kind, target }) => kind === 'not-answering' && target === array.model.name)

/** The volume with which a mirrored one is kept alike; undefined where it, or its array, is gone. */
export function otherEnd(array: SimulatedArray, { mirror }: VolumeEntity): OtherEnd | undefined {
  const other = array.partners.find(({ model }) => model.serial === mirror?.partner)
  const volume = mirror === undefined ? undefined : other?.maybe('volumes', mirror.volumeId)
  return other === undefined || volume === undefined ? undefined : { array: other, volume }
}
