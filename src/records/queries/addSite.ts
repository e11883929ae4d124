import { v7 as uuid } from 'uuid'
import type { Scope } from '../database'
import { inside } from '../model'
import { modelOf } from '../objects'

/** Adds a site; @returns its id, that of the one there is where the name is known */
export async function addSite(scope: Scope, name: string): Promise<string> {
  const model = modelOf(scope.database, 'sites')
  // What stands already is left as it is: an error would end the transaction around it.
  await model.bulkCreate([{ id: uuid(), name }], { ignoreDuplicates: true, ...inside(scope) })
  const found = await model.findOne({ where: { name }, ...inside(scope) })
  return String(found?.get('id') ?? '')
}
