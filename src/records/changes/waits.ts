import { col, fn, Op, where, type Sequelize } from 'sequelize'
import { inTransaction, rows, type Scope } from '../database'
import { inside, plain } from '../model'
import { changeModel, waitModel, type Failing, type Wait } from './models'
import { hasten } from './queue'

export async function waitOf(scope: Scope, changeId: string): Promise<Wait | undefined> {
  const found = await waitModel(scope.database).findByPk(changeId, inside(scope))
  return found?.get({ plain: true })
}

/** A wait that a step asks for. */
type Asked<More> = Pick<Wait, 'changeId' | 'stepIndex'> &
  More & {
    /** Whether a stop takes effect where it waits. */
    readonly canStop: boolean
  }

/** Waits for a task; one that is waited for already keeps its beginning. */
export async function waitForTask(
  scope: Required<Scope>,
  { canStop, ...wait }: Asked<Pick<Wait, 'words' | 'doneRatio'> & { readonly systemId: string; readonly task: string }>,
): Promise<void> {
  const againAt = canStop && (await isStopWanted(scope, wait.changeId)) ? new Date() : null
  // Only the process that holds the change makes and moves its wait, so nothing comes between these two.
  const known = await waitOf(scope, wait.changeId)
  const beganAt = known !== undefined && known.task === wait.task ? known.beganAt : new Date()
  await waitModel(scope.database).upsert({ ...wait, againAt, failing: {}, beganAt }, inside(scope))
}

/** Waits for some seconds before the step is tried again. */
export async function waitForLater(
  scope: Required<Scope>,
  { canStop, seconds, ...wait }: Asked<{ readonly seconds: number; readonly failing: Failing }>,
): Promise<void> {
  const isOver = canStop && (await isStopWanted(scope, wait.changeId))
  const againAt = new Date(Date.now() + (isOver ? 0 : seconds * 1000))
  await waitModel(scope.database).upsert({ ...wait, againAt }, inside(scope))
}

/**
 * Whether a stop is wanted. What asks for it ends the wait that it finds, and finds none while the step that is going to wait is still at
 * work: so the change's row is held, and a stop comes either before this, and is seen here, or after the wait stands.
 */
async function isStopWanted(scope: Required<Scope>, id: string): Promise<boolean> {
  const found = await changeModel(scope.database).findByPk(id, {
    attributes: ['isStopWanted'],
    lock: true,
    ...inside(scope),
  })
  return found?.get({ plain: true }).isStopWanted === true
}

export async function endWait(scope: Scope, changeId: string): Promise<void> {
  await waitModel(scope.database).destroy({ where: { changeId }, ...inside(scope) })
}

/** Lets a change go on now. */
export const wake = (database: Sequelize, changeId: string) => inTransaction(database, scope => hasten(scope, changeId))

/** Systems of which a change waits for some task. Asked twice a second for as long as a worker lives: nothing is made of it but ids. */
export const systemsAwaited = async (scope: Scope): Promise<string[]> =>
  (
    await rows<{ readonly id: string }>(
      scope,
      'select distinct system_id as id from change_waits where task is not null and again_at is null',
    )
  ).map(({ id }) => id)

/** Tasks of a system that changes wait for. */
export async function waitsAt(scope: Scope, systemId: string): Promise<Wait[]> {
  const found = await waitModel(scope.database).findAll({
    where: { systemId, task: { [Op.ne]: null }, againAt: null },
    ...inside(scope),
  })
  return found.map(plain)
}

export async function noteWaitTold(scope: Scope, changeId: string, doneRatio: number): Promise<void> {
  await waitModel(scope.database).update({ doneRatio, toldAt: fn('now') }, { where: { changeId }, ...inside(scope) })
}

/** Running changes that nothing holds up: neither a task nor a moment that is still to come. */
export async function readyIds(scope: Scope): Promise<string[]> {
  const running = await changeModel(scope.database).findAll({
    attributes: ['id'],
    where: { state: 'running' },
    ...inside(scope),
  })
  const ids = running.map(each => each.get({ plain: true }).id)
  if (ids.length === 0) return []
  const holding = await waitModel(scope.database).findAll({
    attributes: ['changeId'],
    where: {
      changeId: ids,
      [Op.or]: [where(col('again_at'), Op.gt, fn('now')), { againAt: null, task: { [Op.ne]: null } }],
    },
    ...inside(scope),
  })
  const held = new Set(holding.map(each => each.get({ plain: true }).changeId))
  return ids.filter(id => !held.has(id))
}
