import type { ObjectRead } from '@/core/plan'

/** The objects that a plan rests on, with the revision that it read. */
export const readsOf = (
  kind: string,
  objects: readonly ({ readonly id: string; readonly name: string; readonly revision: number } | undefined)[],
): ObjectRead[] =>
  objects.flatMap(object =>
    object === undefined ? [] : [{ kind, id: object.id, name: object.name, revision: object.revision }],
  )
