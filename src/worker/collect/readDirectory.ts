import { refusalOf } from '@/core/errors'
import { inTransaction } from '@/records'
import { noteDirectory, storePrincipals } from '@/records/directories'
import type { World } from '../World'

/**
 * Reads a directory into the records, all or nothing. @param told with how many entries have come
 * @returns what could not be used, with why. @throws where it could not be read, after that was noted
 */
export async function readDirectory(
  world: World,
  id: string,
  told: (count: number) => Promise<void> = async () => undefined,
): Promise<readonly string[]> {
  const scope = { database: world.database }
  const { directory, reader } = await world.directory(id)
  try {
    const { principals, skipped, certificateEndsAt } = await reader.read(directory.baseDn, told)
    await inTransaction(world.database, inside => storePrincipals(inside, id, principals))
    const people = principals.filter(({ sort }) => sort === 'person').length
    await noteDirectory(scope, id, { people, groups: principals.length - people, certificateEndsAt })
    return skipped.map(({ dn, why }) => `${dn}: ${why}`)
  } catch (cause) {
    await noteDirectory(scope, id, { why: refusalOf(cause).why })
    throw cause
  }
}
