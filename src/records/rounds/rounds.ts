import type { Round, SinceRound } from '@/core/today'
import { DataTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { row, type Scope } from '../database'
import { remembered } from '../memory'
import { kept, modelFor } from '../model'

interface Kept {
  readonly id: string
  readonly at: Date
  readonly madeBy: string
  readonly note: string
  readonly writtenBytes: string
}
const roundModel = modelFor<Kept>('rounds', {
  id: kept.id,
  at: kept.instant,
  madeBy: kept.text,
  note: kept.text,
  writtenBytes: { type: DataTypes.DECIMAL, allowNull: false },
})

const plain = ({ id, at, madeBy, note }: Kept): Round => ({ id, at: at.toISOString(), madeBy, note })
const written = async (scope: Scope) =>
  (await row<{ bytes: string }>(scope, 'select coalesce(sum(written_bytes), 0)::text as bytes from pools'))?.bytes ??
  '0'

/** Notes that the round is done, with how much is written now. */
export async function keepRound(scope: Scope, madeBy: string, note: string): Promise<Round> {
  const { database, transaction } = scope
  const made = await roundModel(database).create(
    { id: uuid(), madeBy, note, writtenBytes: await written(scope) },
    { transaction: transaction ?? null, returning: true },
  )
  await made.reload({ transaction: transaction ?? null })
  return plain(made.get({ plain: true }))
}

/** The latest rounds, the latest first. */
export async function rounds({ database, transaction }: Scope, most = 20): Promise<Round[]> {
  const found = await roundModel(database).findAll({
    order: [['at', 'DESC']],
    limit: most,
    transaction: transaction ?? null,
  })
  return found.map(each => plain(each.get({ plain: true })))
}

/** What has become otherwise since the latest round; undefined where none was ever done. */
export const sinceLatestRound = (scope: Scope): Promise<SinceRound | undefined> =>
  remembered(scope, 'since the latest round', () => readSince(scope))

async function readSince(scope: Scope): Promise<SinceRound | undefined> {
  const { database, transaction } = scope
  const found = await roundModel(database).findOne({ order: [['at', 'DESC']], transaction: transaction ?? null })
  if (found === null) return undefined
  const kept = found.get({ plain: true })
  const counts = await row<Record<'proven' | 'unproven' | 'stopped' | 'fresh' | 'cleared', number>>(
    scope,
    `select
       (select count(*)::int from changes where ended_at > $1 and state = 'proven') as proven,
       (select count(*)::int from changes where ended_at > $1 and state = 'unproven') as unproven,
       (select count(*)::int from changes where ended_at > $1 and state in ('stopped', 'failed')) as stopped,
       (select count(*)::int from findings where since > $1 and cleared_at is null) as fresh,
       (select count(*)::int from findings where cleared_at > $1 and since <= $1) as cleared`,
    [kept.at],
  )
  return {
    round: plain(kept),
    proven: counts?.proven ?? 0,
    unproven: counts?.unproven ?? 0,
    stopped: counts?.stopped ?? 0,
    newFindings: counts?.fresh ?? 0,
    clearedFindings: counts?.cleared ?? 0,
    writtenBytes: BigInt(await written(scope)) - BigInt(kept.writtenBytes),
  }
}
