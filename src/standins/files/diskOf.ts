import type { SimulatedArray, SnapshotEntity } from '../array'
import type { DiskBytes } from './FileSystems'

/** A volume's bytes as the array itself has them, without a host between. */
export const diskOf = (array: SimulatedArray, volumeId: string): DiskBytes => ({
  sizeBytes: BigInt(array.one('volumes', volumeId).sizeBytes),
  read: (offset, length) => array.blocks.read(volumeId, offset, length),
  write(offset, data) {
    const volume = array.one('volumes', volumeId)
    const storedExtents = array.blocks.write(volumeId, offset, data)
    if (storedExtents !== volume.storedExtents)
      array.store.commit([array.entry('volumes', { ...volume, storedExtents })])
  },
})

/** The bytes that a snapshot holds; nothing writes there. */
export const snapshotDiskOf = (array: SimulatedArray, { id, sizeBytes }: SnapshotEntity): DiskBytes => ({
  sizeBytes: BigInt(sizeBytes),
  read: (offset, length) => array.blocks.read(id, offset, length),
  write() {
    throw new Error('A snapshot is never written.')
  },
})
