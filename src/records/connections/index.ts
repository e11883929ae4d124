import { DataTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import type { ConnectionTest } from '@/core/views'
import { run, type Scope } from '../database'
import { kept, modelFor } from '../model'

type Kept = Omit<ConnectionTest, 'at'> & { readonly at: Date }
const testModel = modelFor<Kept>('connection_tests', {
  id: kept.id,
  hostId: { type: DataTypes.UUID, allowNull: false },
  shareId: { type: DataTypes.UUID, allowNull: false },
  protocol: kept.text,
  caller: kept.text,
  at: kept.instant,
  madeBy: kept.text,
  hops: { type: DataTypes.JSONB, allowNull: false },
  wayOut: { type: DataTypes.JSONB, allowNull: true },
})

/** So many of a host and a share are kept: enough to see what changes in between have done. */
const keptOfBoth = 20

/** Keeps a test; the oldest of the same host and share go. */
export async function keepConnectionTest(
  scope: Scope,
  test: Omit<ConnectionTest, 'id' | 'at'>,
): Promise<ConnectionTest> {
  const made = { id: uuid(), ...test, at: new Date() }
  await testModel(scope.database).create(made, { transaction: scope.transaction ?? null })
  await run(
    scope,
    `delete from connection_tests where id in
     (select id from connection_tests where share_id = $1 and host_id = $2 order by at desc, id desc offset ${keptOfBoth})`,
    [test.shareId, test.hostId],
  )
  return { ...made, at: made.at.toISOString() }
}

/** The tests of a host and a share, the latest first. */
export async function connectionTests(
  { database, transaction }: Scope,
  hostId: string,
  shareId: string,
): Promise<ConnectionTest[]> {
  const found = await testModel(database).findAll({
    where: { hostId, shareId },
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
    transaction: transaction ?? null,
  })
  return found.map(each => each.get({ plain: true })).map(each => ({ ...each, at: each.at.toISOString() }))
}

/** The latest test of each host and share that has one, the latest first. */
export async function latestConnectionTests(
  { database, transaction }: Scope,
  limit: number,
): Promise<ConnectionTest[]> {
  const found = await testModel(database).findAll({
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
    limit,
    transaction: transaction ?? null,
  })
  return found.map(each => each.get({ plain: true })).map(each => ({ ...each, at: each.at.toISOString() }))
}
