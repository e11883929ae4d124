import { join } from 'node:path'
import {
  poolWrittenBytes,
  badValue,
  blockPools,
  conflict,
  type BankEntity,
  type DriveEntity,
  type ExtraWork,
  type PoolEntity,
  type SpreadLayout,
  type SpreadScheme,
  type TaskEntity,
} from '../array'
import type { Entry } from '../fleet'
import { accounted, metadataRatio, snapshotRatioOf, spreadOf } from './accounts'
import { DriveFaults } from './DriveFaults'
import { beginErasing } from './erasing'
import { haltedWhy } from './halting'
import { isLostForGood } from './losses'
import { PieceMoves } from './PieceMoves'
import type { PieceStore } from './PieceStore'
import { schemeOf, widthOf } from './pieces'
import type { RawDrives } from './RawDrives'
import type { SimulatedRow } from './SimulatedRow'
import { banksWithout, letGo, placed, takable } from './taking'

const layOutShare = 0.8

export interface ClusterPoolRequest {
  readonly name: string
  readonly description: string
  readonly scheme: SpreadScheme
  readonly domain: SpreadLayout['domain']
  readonly banks: readonly BankEntity[]
  readonly keepsReserve: boolean
  readonly snapshotReserveRatio: number
}

/** What a row's cluster does with its drives: banks, pools, moving pieces and making them anew; and erasing drives before that. */
export class ClusterPools implements ExtraWork {
  readonly faults: DriveFaults
  readonly #moves: PieceMoves

  constructor(
    readonly row: SimulatedRow,
    private readonly store: PieceStore,
    private readonly raw: RawDrives,
    folder: string,
  ) {
    this.faults = new DriveFaults(row, store)
    this.#moves = new PieceMoves(row, store, join(folder, 'moves'))
    row.array.extraWork = this
  }

  createPool(request: ClusterPoolRequest): TaskEntity {
    const { array } = this.row
    const notMade = `Pool ${request.name} was not made.`
    if (this.row.all('clusters')[0]?.isReady !== true)
      throw conflict(notMade, 'The nodes are not one cluster yet.', 'Form the cluster first.')
    if (array.all('pools').some(pool => pool.name === request.name))
      throw conflict(notMade, 'A pool of that name exists.', 'Choose another name.')
    const drives = takable(this.row, request.name, request.banks)
    const draft = drafted(array.nextId('pools', request.name), request)
    const pool = accounted(this.row, draft, request.snapshotReserveRatio)
    if (pool.usableBytes === '0')
      throw badValue(notMade, 'Its stripes are wider than it has failure domains.', 'Take more nodes or fewer pieces.')
    const lanes = drives.map(drive => ({
      bytes: Number(drive.capacityBytes) * metadataRatio,
      bytesPerSecond: drive.bytesPerSecond * layOutShare,
    }))
    const task = array.task(`Lay out pool ${pool.name}`, 'initialise-pool', pool.id, { name: request.name }, lanes)
    array.store.commit([...placed(this.row, pool, drives), array.entry('pools', pool), array.entry('tasks', task)])
    for (const drive of drives) this.store.pieces.empty(drive.id)
    this.store.layOut(pool)
    return task
  }

  /** Puts banks or drives behind known cache drives into the pool, and moves what has to move onto them. */
  addDrives(poolId: string, banks: readonly BankEntity[], rateShare: number): TaskEntity {
    const { array } = this.row
    const pool = array.one('pools', poolId)
    const spread = spreadOf(pool)
    this.#restful(pool)
    const known = new Map(spread.banks.map(bank => [bank.cache, bank]))
    const drives = takable(
      this.row,
      pool.name,
      banks.map(bank => (known.has(bank.cache) ? { ...bank, cache: '' } : bank)),
    )
    const merged = [
      ...spread.banks.map(bank => ({
        ...bank,
        capacity: [...bank.capacity, ...banks.filter(each => each.cache === bank.cache).flatMap(each => each.capacity)],
      })),
      ...banks.filter(bank => !known.has(bank.cache)),
    ]
    const larger = {
      ...pool,
      groups: merged.map(bank => bank.capacity),
      spread: { ...spread, banks: merged, rateShare },
    }
    const after = accounted(this.row, larger, snapshotRatioOf(pool))
    array.store.commit([...placed(this.row, after, drives), array.entry('pools', after)])
    for (const drive of drives) this.store.pieces.empty(drive.id)
    return this.#moves.begin(
      after,
      'move-pieces',
      `Spread ${pool.name} onto ${drives.length} more drives`,
      drive => this.row.isReadable(drive),
      [],
    )
  }

  /** Moves everything off drives of the pool, and then lets them go. */
  removeDrives(poolId: string, driveIds: readonly string[], rateShare: number): TaskEntity {
    const { array } = this.row
    const pool = array.one('pools', poolId)
    const spread = spreadOf(pool)
    this.#restful(pool)
    const staying = banksWithout(spread.banks, driveIds)
    const after = accounted(
      this.row,
      { ...pool, spread: { ...spread, banks: staying, rateShare } },
      snapshotRatioOf(pool),
    )
    if (BigInt(after.usableBytes) === 0n)
      throw conflict(
        'Nothing was taken out.',
        'Too few failure domains would be left for a whole stripe.',
        'Leave more nodes in.',
      )
    if (poolWrittenBytes(array, pool.id) > array.poolDataBytes(after))
      throw conflict(
        'Nothing was taken out.',
        'What is written would not fit on what is left.',
        'Add drives elsewhere first.',
      )
    const stays = new Set(staying.flatMap(bank => bank.capacity))
    return this.#moves.begin(
      pool,
      'move-pieces',
      `Take ${driveIds.length} drives out of ${pool.name}`,
      drive => stays.has(drive.id) && this.row.isReadable(drive),
      driveIds,
    )
  }

  removePool(poolId: string): void {
    blockPools.removePool(this.row.array, poolId)
    this.store.tables.forget(poolId)
  }

  eraseDrive(driveId: string, isWhole: boolean): TaskEntity {
    return beginErasing(this.row, driveId, isWhole)
  }

  /** What happens by itself: pieces of lost drives are made anew, and nodes that come back are brought up to date. */
  tick(): void {
    const { row } = this
    const { array } = row
    for (const node of row.all('nodes')) {
      if (node.restartingUntil === null || node.restartingUntil > array.clock.now()) continue
      array.store.commit([row.entry('nodes', { ...node, restartingUntil: null })])
    }
    for (const pool of array.all('pools')) {
      if (pool.spread === null || !pool.isReady || this.#moves.running(pool.id) !== undefined) continue
      const lost = row.lostDrives(pool).filter(drive => isLostForGood(row, drive))
      if (lost.length === 0) continue
      const table = this.store.tables.of(pool.id)
      const lostIds = new Set(lost.map(drive => drive.id))
      if (!table.some(places => places.some(drive => drive !== null && lostIds.has(drive)))) continue
      const mayUse = (drive: DriveEntity) => row.isReadable(drive)
      const domains = new Set(
        array
          .all('drives')
          .filter(drive => pool.groups.flat().includes(drive.id) && mayUse(drive))
          .map(drive => (pool.spread?.domain === 'rack' ? row.nodeOf(drive).rack : drive.enclosureId)),
      )
      if (domains.size < widthOf(schemeOf(pool))) continue
      this.#moves.begin(pool, 'rebuild-pieces', `Make pieces of ${lost.length} lost drives anew`, mayUse, [])
    }
  }

  halted(task: TaskEntity): string | undefined {
    return haltedWhy(this.row, task)
  }

  progressed(task: TaskEntity, ratio: number): void {
    this.#moves.progressed(task, ratio)
  }

  ended(task: TaskEntity): readonly Entry[] {
    const { row } = this
    const { array } = row
    if (task.work === 'form-cluster') {
      const [cluster] = row.all('clusters')
      return cluster === undefined ? [] : [row.entry('clusters', { ...cluster, isReady: true })]
    }
    if (task.work === 'erase-drive') {
      const drive = array.one('drives', task.subjectId)
      this.raw.erase(drive)
      this.store.pieces.empty(drive.id)
      return [array.entry('drives', { ...drive, leftOver: null })]
    }
    if (task.work !== 'rebuild-pieces' && task.work !== 'move-pieces') return []
    this.#moves.finish(task)
    const leaving = (JSON.parse(task.jsonBody) as { leaving?: string[] }).leaving ?? []
    for (const id of leaving) this.store.pieces.empty(id)
    return leaving.length === 0 ? [] : letGo(row, array.one('pools', task.subjectId), leaving)
  }

  #restful(pool: PoolEntity): void {
    const running = this.#moves.running(pool.id)
    if (running !== undefined)
      throw conflict('Nothing was changed.', `${pool.name} is at work: ${running.name}.`, 'Wait for its task.')
    if (!pool.isReady)
      throw conflict('Nothing was changed.', `${pool.name} is still being laid out.`, 'Wait for its task.')
  }
}

/** A pool before what it holds has been accounted for. */
const drafted = (
  id: string,
  { name, description, banks, scheme, domain, keepsReserve }: ClusterPoolRequest,
): PoolEntity => ({
  ...{ id, name, description },
  raidType: 'RAID6',
  groups: banks.map(bank => bank.capacity),
  spares: [],
  isReady: false,
  rawBytes: '0',
  usableBytes: '0',
  metadataBytes: '0',
  snapshotReserveBytes: '0',
  spread: {
    ...{ scheme, domain, banks, keepsReserve },
    rebuildReserveBytes: '0',
    strandedBytes: '0',
    rateShare: 0.5,
  },
})
