import type { PieceStore } from './PieceStore'
import type { SimulatedRow } from './SimulatedRow'

/** What happens to a row's drives from outside, and what becomes of the pieces on them. */
export class DriveFaults {
  constructor(
    private readonly row: SimulatedRow,
    private readonly store: PieceStore,
  ) {}

  fail(nodeId: string, bay: number): void {
    const { array } = this.row
    const drive = this.#at(nodeId, bay)
    if (drive === undefined || drive.isFailed) return
    array.store.commit([array.entry('drives', { ...drive, isFailed: true })])
    this.store.pieces.empty(drive.id)
    // With its cache drive a bank loses the map of what lies where: its pieces are gone, though the disks still turn.
    if (drive.role !== 'cache') return
    for (const bank of array.all('pools').flatMap(pool => pool.spread?.banks ?? []))
      if (bank.cache === drive.id) for (const id of bank.capacity) this.store.pieces.empty(id)
  }

  setPulled(nodeId: string, bay: number, isPulled: boolean): void {
    const { array } = this.row
    const drive = this.#at(nodeId, bay)
    if (drive !== undefined) array.store.commit([array.entry('drives', { ...drive, isPulled })])
    if (!isPulled) this.nodeIsBack(nodeId)
  }

  /** A node is back: what was written meanwhile is brought to its pieces. */
  nodeIsBack(nodeId: string): void {
    const { array } = this.row
    const own = new Set(
      array
        .all('drives')
        .filter(drive => drive.enclosureId === nodeId)
        .map(drive => drive.id),
    )
    for (const pool of array.all('pools')) if (pool.spread !== null) this.store.catchUp(pool, own)
  }

  #at(nodeId: string, bay: number) {
    return this.row.array.all('drives').find(each => each.enclosureId === nodeId && each.bay === bay)
  }
}
