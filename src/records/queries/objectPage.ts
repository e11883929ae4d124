import { columnOf, object, tableOf } from '../objects'
import { isLocated, kindOf, type KindName } from '@/core/estate'
import type { ObjectPage } from '@/core/views'
import { row, type Scope } from '../database'
import { namesFor, referencesOf } from './references'

/** One object of a kind, with the names of what it refers to. */
export async function objectById(scope: Scope, name: KindName, id: string): Promise<ObjectPage | undefined> {
  const kind = kindOf(name)
  const found = await object(scope, name, id)
  if (found === undefined) return undefined
  const fields = found as unknown as Readonly<Record<string, unknown>>
  const names = await namesFor(scope, kind, [found])
  const missing = isLocated(kind)
    ? await row<{ readonly since: Date | null }>(
        scope,
        `select ${columnOf('missingSince')} as since from ${tableOf(name)} where id = $1`,
        [id],
      )
    : undefined
  return {
    object: fields,
    title: String(fields[kind.search?.title ?? 'name'] ?? ''),
    missingSince: missing?.since?.toISOString() ?? null,
    references: Object.entries(referencesOf(kind)).flatMap(([field, of]) => {
      const other = fields[field]
      return typeof other === 'string' ? [{ field, kind: kindOf(of), id: other, name: names[other] ?? '' }] : []
    }),
  }
}
