import { badValue, conflict, type BankEntity, type DriveEntity, type PoolEntity } from '../array'
import type { Entry } from '../fleet'
import { accounted, snapshotRatioOf, spreadOf } from './accounts'
import type { SimulatedRow } from './SimulatedRow'

/** The drives of these banks, if all may be taken; else the first that may not is refused with its reason. */
export function takable(row: SimulatedRow, name: string, banks: readonly BankEntity[]): DriveEntity[] {
  const [cluster] = row.all('clusters')
  const ids = banks.flatMap(bank => [bank.cache, ...bank.capacity]).filter(id => id !== '')
  if (new Set(ids).size !== ids.length)
    throw badValue(`${name} was not changed.`, 'A drive is named twice.', 'Name each drive once.')
  return ids.map(id => {
    const drive = row.array.one('drives', id)
    const why = drive.isBoot
      ? 'its node starts from it'
      : drive.role !== 'unassigned'
        ? 'it is in use'
        : drive.leftOver !== null
          ? 'an earlier use has left data on it'
          : drive.isFailed || drive.isPulled || !row.isAnswering(row.nodeOf(drive))
            ? 'it does not answer'
            : cluster?.nodeIds.includes(drive.enclosureId) !== true
              ? 'its node is not in the cluster'
              : undefined
    if (why !== undefined)
      throw conflict(
        `${name} was not changed.`,
        `Drive ${drive.serial} cannot be taken: ${why}.`,
        'Choose another drive.',
      )
    return drive
  })
}

/** Drives in the banks of a pool, as they are kept. */
export function placed(row: SimulatedRow, pool: PoolEntity, drives: readonly DriveEntity[]): Entry[] {
  return drives.map(drive => {
    const index =
      pool.spread?.banks.findIndex(bank => bank.cache === drive.id || bank.capacity.includes(drive.id)) ?? -1
    const role = pool.spread?.banks[index]?.cache === drive.id ? ('cache' as const) : ('data' as const)
    return row.array.entry('drives', { ...drive, poolId: pool.id, groupIndex: index, role })
  })
}

/** The pool without these drives, and the drives free again: with a bank's last drive its cache drive goes as well. */
export function letGo(row: SimulatedRow, pool: PoolEntity, driveIds: readonly string[]): Entry[] {
  const { array } = row
  const spread = spreadOf(pool)
  const banks = banksWithout(spread.banks, driveIds)
  const caches = spread.banks.filter(bank => !banks.some(each => each.cache === bank.cache)).map(bank => bank.cache)
  const smaller = { ...pool, groups: banks.map(bank => bank.capacity), spread: { ...spread, banks } }
  return [
    array.entry('pools', accounted(row, smaller, snapshotRatioOf(pool))),
    ...[...new Set([...driveIds, ...caches])].map(id =>
      array.entry('drives', { ...array.one('drives', id), poolId: null, groupIndex: null, role: 'unassigned' }),
    ),
  ]
}

/** Banks that are left when these drives go: without its cache drive or its last disk a bank is none. */
export function banksWithout(banks: readonly BankEntity[], driveIds: readonly string[]): BankEntity[] {
  const leaving = new Set(driveIds)
  return banks
    .filter(bank => !leaving.has(bank.cache))
    .map(bank => ({ ...bank, capacity: bank.capacity.filter(id => !leaving.has(id)) }))
    .filter(bank => bank.capacity.length > 0)
}
