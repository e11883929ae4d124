import { fn, literal, Op } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { row, type Scope } from '../database'
import { remembered, type ReadingScope } from '../memory'
import { inside, kept, modelFor } from '../model'
import { isStale, noteUse } from './noteUse'

const idleHours = 12
/** However busily it is used, a session ends after this. */
const longestHours = 7 * 24

interface Session {
  readonly id: string
  readonly administratorId: string
  readonly usedAt: Date
  readonly endsAt: Date
}
const model = modelFor<Session>('sessions', {
  id: kept.id,
  administratorId: kept.uuid,
  usedAt: kept.instant,
  endsAt: kept.instant,
})
// Ages are measured by the database's clock, which is one for all processes.
const idleSince = literal(`now() - interval '${idleHours} hours'`)

/** Opens a session in place of the one that the browser had. @returns its id */
export async function openSession(
  scope: Scope,
  administratorId: string,
  inPlaceOf: string | undefined,
): Promise<string> {
  const sessions = model(scope.database)
  const id = uuid()
  if (inPlaceOf !== undefined) await closeSession(scope, inPlaceOf)
  const isOver = { [Op.or]: [{ endsAt: { [Op.lt]: fn('now') } }, { usedAt: { [Op.lt]: idleSince } }] }
  await sessions.destroy({ where: isOver, ...inside(scope) })
  await sessions.create(
    { id, administratorId, endsAt: new Date(Date.now() + longestHours * 3_600_000) },
    { returning: false, ...inside(scope) },
  )
  return id
}

export async function closeSession(scope: Scope, id: string): Promise<void> {
  await model(scope.database).destroy({ where: { id }, ...inside(scope) })
}

/** Ends every session of an administrator but one, as after a change of password. */
export async function closeOtherSessions(scope: Scope, administratorId: string, keptId: string): Promise<void> {
  await model(scope.database).destroy({ where: { administratorId, id: { [Op.ne]: keptId } }, ...inside(scope) })
}

interface Holder {
  readonly id: string
  readonly name: string
}

/**
 * Who a session belongs to; undefined where it has ended. Its last use is noted at most once a minute. Asked for by every request, so
 * in one statement of its own; that a session has ended is told, so that it may be remembered.
 */
export const administratorOf = (scope: ReadingScope, sessionId: string): Promise<Holder | undefined> =>
  remembered(scope, `session ${sessionId}`, () => readHolder({ database: scope.database }, sessionId))

async function readHolder(scope: Scope, sessionId: string): Promise<Holder | undefined> {
  const found = await row<Holder & { readonly is_stale: boolean }>(
    scope,
    `select administrators.id, administrators.name, ${isStale} as is_stale from sessions join administrators on administrators.id = administrator_id
     where sessions.id = $1 and used_at > now() - make_interval(hours => $2) and ends_at > now()`,
    [sessionId, idleHours],
  )
  if (found === undefined) return undefined
  if (found.is_stale) await noteUse(scope, 'sessions', sessionId)
  return { id: found.id, name: found.name }
}

/** Whether a session still holds; asking is no use of it, so that an open page does not keep it alive. */
export async function isSessionOpen(scope: Scope, sessionId: string): Promise<boolean> {
  const isOpen = { id: sessionId, usedAt: { [Op.gt]: idleSince }, endsAt: { [Op.gt]: fn('now') } }
  return (await model(scope.database).count({ where: isOpen, ...inside(scope) })) > 0
}
