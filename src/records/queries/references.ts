import { isLocated, kindOf, type KindName, type ObjectKind } from '@/core/estate'
import type { Scope } from '../database'
import { modelOf } from '../objects'

/** The kinds to which an object refers, by field. */
export const referencesOf = (kind: ObjectKind): Readonly<Record<string, KindName>> => ({
  ...(isLocated(kind) ? { systemId: 'systems' } : {}),
  ...(kind.references as Readonly<Record<string, KindName>>),
})

/** Whether objects of a kind bear names. */
export const hasName = (name: KindName) => 'name' in kindOf(name).schema.properties

/** The names of what some objects of a kind refer to, by id. */
export async function namesFor(
  scope: Scope,
  kind: ObjectKind,
  items: readonly object[],
): Promise<Record<string, string>> {
  const names: Record<string, string> = {}
  for (const [field, of] of Object.entries(referencesOf(kind))) {
    const ids = new Set(items.map(item => (item as Readonly<Record<string, unknown>>)[field]).filter(id => id !== null))
    if (ids.size === 0 || !hasName(of)) continue
    const found = await modelOf(scope.database, of).findAll({
      attributes: ['id', 'name'],
      where: { id: [...ids] as string[] },
      raw: true,
      transaction: scope.transaction ?? null,
    })
    for (const each of found as unknown as { readonly id: string; readonly name: string }[]) names[each.id] = each.name
  }
  return names
}
