import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { DriveEntity, PoolEntity, TaskEntity } from '../array'
import { lanesOf, type Move } from './moves'
import type { PieceStore } from './PieceStore'
import type { SimulatedRow } from './SimulatedRow'

/** Pieces on their way: what a task has still to move is kept in a file, so that it goes on after a kill. */
export class PieceMoves {
  readonly #applied = new Map<string, number>()

  constructor(
    private readonly row: SimulatedRow,
    private readonly store: PieceStore,
    private readonly folder: string,
  ) {
    mkdirSync(folder, { recursive: true })
  }

  /** Begins to bring stripe sets to where they shall stand; how long it takes follows from what each drive and link has to carry. */
  begin(
    pool: PoolEntity,
    work: 'rebuild-pieces' | 'move-pieces',
    words: string,
    mayUse: (drive: DriveEntity) => boolean,
    leaving: readonly string[],
  ): TaskEntity {
    const { array } = this.row
    const moves = this.store.wantedRows(pool, mayUse)
    const { lanes, bytes } = lanesOf(this.row, this.store.tables.of(pool.id), pool, moves, work === 'rebuild-pieces')
    const task = array.task(words, work, pool.id, { leaving, bytes: Math.round(bytes), sets: moves.length }, lanes)
    const path = join(this.folder, `${task.id}.json`)
    writeFileSync(`${path}.next`, JSON.stringify(moves), { flush: true })
    renameSync(`${path}.next`, path)
    array.store.commit([array.entry('tasks', task)])
    return task
  }

  /** Moves as many sets as are done by now. */
  progressed(task: TaskEntity, ratio: number): void {
    if (task.work !== 'rebuild-pieces' && task.work !== 'move-pieces') return
    const pool = this.row.array.all('pools').find(each => each.id === task.subjectId)
    const moves = this.#movesOf(task.id)
    const upTo = Math.floor(Math.min(1, ratio) * moves.length)
    const from = this.#applied.get(task.id) ?? 0
    if (pool === undefined || upTo <= from) return
    this.store.moveSets(pool, moves.slice(from, upTo))
    this.#applied.set(task.id, upTo)
  }

  finish(task: TaskEntity): void {
    this.progressed(task, 1)
    rmSync(join(this.folder, `${task.id}.json`), { force: true })
    this.#applied.delete(task.id)
  }

  running(poolId: string): TaskEntity | undefined {
    return this.row.array
      .all('tasks')
      .find(
        task =>
          task.subjectId === poolId &&
          task.state === 'Running' &&
          (task.work === 'rebuild-pieces' || task.work === 'move-pieces'),
      )
  }

  #movesOf(taskId: string): Move[] {
    const path = join(this.folder, `${taskId}.json`)
    return existsSync(path) ? (JSON.parse(readFileSync(path, 'utf8')) as Move[]) : []
  }
}
