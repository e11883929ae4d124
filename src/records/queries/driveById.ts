import type { Drive } from '@/core/estate'
import type { Scope } from '../database'
import { object, objects } from '../objects'

/** A drive with the names of where it stands and, where it stands in a node, the data drives beside it. */
export async function driveById(
  scope: Scope,
  id: string,
): Promise<
  | {
      readonly drive: Drive
      readonly system: string
      readonly node: string | null
      /** Null where it stands in no node. */
      readonly beside: readonly Drive[] | null
    }
  | undefined
> {
  const drive = await object(scope, 'drives', id)
  if (drive === undefined) return undefined
  const system = await object(scope, 'systems', drive.systemId)
  if (drive.nodeId === null) return { drive, system: system?.name ?? '', node: null, beside: null }
  const [node, beside] = await Promise.all([
    object(scope, 'nodes', drive.nodeId),
    objects(scope, 'drives', { where: { nodeId: drive.nodeId, isBoot: false } }),
  ])
  return { drive, system: system?.name ?? '', node: node?.name ?? null, beside }
}
