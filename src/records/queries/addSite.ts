import { v7 as uuid } from 'uuid'
import { row, type Scope } from '../database'

/** Adds a site; @returns its id, that of the one there is where the name is known */
export async function addSite(scope: Scope, name: string): Promise<string> {
  const added = await row<{ readonly id: string }>(
    scope,
    'insert into sites (id, name) values ($1, $2) on conflict (name) do update set name = excluded.name returning id',
    [uuid(), name],
  )
  return added?.id ?? ''
}
