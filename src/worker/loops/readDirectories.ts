import { directoriesDue } from '@/records/directories'
import { readDirectory } from '../collect/readDirectory'
import type { World } from '../World'

/** So long what is known of a directory may be old (seconds). */
const mostSeconds = 60

/** Reads every directory that was not read for a while, one after another; one that does not answer holds the others up by its patience. */
export async function readDirectories(world: World, log: (cause: unknown) => void): Promise<void> {
  for (const id of await directoriesDue({ database: world.database }, mostSeconds)) {
    if (world.stop.aborted) return
    await readDirectory(world, id).catch(log)
  }
}
