import { createHash, timingSafeEqual } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { run, type Scope } from '../database'
import { inside, kept, modelFor } from '../model'
import { setting, settingModel } from '../settings'

export interface Administrator {
  readonly id: string
  readonly name: string
  readonly madeAt: string
}

const administratorsLock = 7_261_556

interface Row {
  readonly id: string
  readonly name: string
  readonly passwordHash: string
  readonly madeAt: Date
}
const model = modelFor<Row>('administrators', {
  id: kept.id,
  name: kept.text,
  passwordHash: kept.text,
  madeAt: kept.instant,
})

export const administratorCount = (scope: Scope) => model(scope.database).count(inside(scope))

export async function passwordHashOf(
  scope: Scope,
  name: string,
): Promise<Pick<Row, 'id' | 'passwordHash'> | undefined> {
  const found = await model(scope.database).findOne({ where: { name }, ...inside(scope) })
  return found?.get({ plain: true })
}

export async function administrators(scope: Scope): Promise<Administrator[]> {
  const found = await model(scope.database).findAll({ order: [['name', 'ASC']], ...inside(scope) })
  return found.map(each => {
    const { id, name, madeAt } = each.get({ plain: true })
    return { id, name, madeAt: madeAt.toISOString() }
  })
}

/** Adds an administrator; undefined where the name is taken. */
export async function addAdministrator(scope: Scope, name: string, passwordHash: string): Promise<string | undefined> {
  const id = uuid()
  // What stands already is left as it is: an error would end the transaction around it.
  await model(scope.database).bulkCreate([{ id, name, passwordHash }], { ignoreDuplicates: true, ...inside(scope) })
  const found = await model(scope.database).findByPk(id, inside(scope))
  return found === null ? undefined : id
}

/** Adds the first administrator with the code that the start printed; undefined where the code is wrong or there is one already. */
export async function addFirstAdministrator(
  scope: Required<Scope>,
  code: string,
  name: string,
  passwordHash: string,
): Promise<string | undefined> {
  await run(scope, 'select pg_advisory_xact_lock($1)', [administratorsLock])
  const expected = await firstCode(scope)
  if (
    expected === undefined ||
    !isSameText(expected, code.trim().toUpperCase()) ||
    (await administratorCount(scope)) > 0
  )
    return undefined
  const id = await addAdministrator(scope, name, passwordHash)
  await settingModel(scope.database).destroy({ where: { key: 'first-sign-in' }, ...inside(scope) })
  return id
}

/** Compares without telling by the time it takes how much of it is right. */
const isSameText = (one: string, other: string) =>
  timingSafeEqual(createHash('sha256').update(one).digest(), createHash('sha256').update(other).digest())

export const setPasswordHash = async (scope: Scope, id: string, passwordHash: string): Promise<void> =>
  void (await model(scope.database).update({ passwordHash }, { where: { id }, ...inside(scope) }))

/** Removes an administrator and, with it, sessions and tokens; false for the last one or one that is not there. */
export async function removeAdministrator(scope: Required<Scope>, id: string): Promise<boolean> {
  await run(scope, 'select pg_advisory_xact_lock($1)', [administratorsLock])
  if ((await administratorCount(scope)) <= 1) return false
  return (await model(scope.database).destroy({ where: { id }, ...inside(scope) })) > 0
}

/** The code that the first sign-in needs; undefined once it has been used. */
export const firstCode = (scope: Scope) => setting<string>(scope, 'first-sign-in')
