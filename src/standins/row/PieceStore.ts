import { join } from 'node:path'
import { stripeSetCount } from '@/core/clusters'
import { extentBytes, type DriveEntity, type PoolEntity, type VolumeBytes } from '../array'
import { ExtentIndex } from './ExtentIndex'
import { PieceFiles } from './PieceFiles'
import { BytesLost, NotWritable } from './errors'
import { cut, neededOf, restored, schemeOf, spans, widthOf } from './pieces'
import { domainsOf, placedOn } from './placing'
import type { SimulatedRow } from './SimulatedRow'
import { stripeSetOf, StripeTables } from './StripeTables'

const size = Number(extentBytes)

/**
 * The bytes of a cluster's volumes: every extent is cut into data pieces, parity is computed, and each piece goes to a drive in a
 * failure domain of its own. Whatever pieces are left decide what can be read; nothing is ever guessed.
 */
export class PieceStore implements VolumeBytes {
  readonly tables: StripeTables
  readonly pieces: PieceFiles
  readonly #index: ExtentIndex
  #row: SimulatedRow | undefined

  constructor(folder: string) {
    this.tables = new StripeTables(join(folder, 'tables'))
    this.pieces = new PieceFiles(join(folder, 'pieces'))
    this.#index = new ExtentIndex(join(folder, 'extents'))
  }

  /** The row whose drives hold the pieces: given once it has been made, since it needs this store first. */
  serve(row: SimulatedRow): void {
    this.#row = row
  }

  write(volumeId: string, offset: bigint, data: Buffer): number {
    for (const { extent, from, at, length } of spans(offset, data.length)) {
      const whole = length === size ? Buffer.alloc(size) : this.#readExtent(volumeId, extent)
      data.copy(whole, at, from, from + length)
      this.#writeExtent(volumeId, extent, whole)
    }
    return this.#index.of(volumeId).size
  }

  read(volumeId: string, offset: bigint, length: number): Buffer {
    const data = Buffer.alloc(length)
    for (const { extent, from, at, length: part } of spans(offset, length))
      this.#readExtent(volumeId, extent).copy(data, from, at, at + part)
    return data
  }

  discard(volumeId: string, offset: bigint, length: number): number {
    const table = this.tables.of(this.#poolOf(volumeId).id)
    for (const { extent, length: part } of spans(offset, length)) {
      if (part !== size || !this.#index.of(volumeId).has(extent)) continue
      this.#index.note(volumeId, extent, 0)
      table[stripeSetOf(volumeId, extent)]?.forEach((drive, index) => {
        if (drive !== null) this.pieces.remove(drive, volumeId, extent, index)
      })
    }
    return this.#index.of(volumeId).size
  }

  forget(volumeId: string): void {
    this.#index.forget(volumeId)
    for (const drive of this.#serving.array.all('drives')) this.pieces.forgetVolume(drive.id, volumeId)
  }

  /** Stripe sets that too few readable drives are left to read. */
  lostSets(pool: PoolEntity): Set<number> {
    const needed = neededOf(schemeOf(pool))
    const readable = this.#readableDrives()
    const lost = new Set<number>()
    this.tables.of(pool.id).forEach((row, set) => {
      if (row.filter(drive => drive !== null && readable.has(drive)).length < needed) lost.add(set)
    })
    return lost
  }

  /** Bytes of a volume that cannot be read now: its accounted bytes by their stripe sets, and extents that were really written. */
  lostBytes(volumeId: string): bigint {
    const volume = this.#serving.array.one('volumes', volumeId)
    const pool = this.#poolOf(volumeId)
    const lost = this.lostSets(pool)
    if (lost.size === 0) return 0n
    const stored = [...this.#index.of(volumeId).keys()].filter(extent => lost.has(stripeSetOf(volumeId, extent))).length
    return (BigInt(volume.workloadBytes) * BigInt(lost.size)) / BigInt(stripeSetCount) + BigInt(stored) * extentBytes
  }

  /** Lays the stripe sets of a new pool. */
  layOut(pool: PoolEntity): void {
    this.tables.keep(
      pool.id,
      placedOn(this.#serving, pool, drive => !drive.isFailed && !drive.isPulled),
    )
  }

  /** Where each set shall stand after a change of drives: pieces that may stay keep their place and index, others go where they are wanted. */
  wantedRows(
    pool: PoolEntity,
    mayUse: (drive: DriveEntity) => boolean,
  ): { readonly set: number; readonly row: (string | null)[] }[] {
    const table = this.tables.of(pool.id)
    return placedOn(this.#serving, pool, mayUse, table).flatMap((row, set) =>
      JSON.stringify(row) === JSON.stringify(table[set]) ? [] : [{ set, row: [...row] }],
    )
  }

  /** Gives sets their new places and makes the pieces there from what is readable. Safe to repeat. */
  moveSets(pool: PoolEntity, moves: readonly { readonly set: number; readonly row: (string | null)[] }[]): void {
    if (moves.length === 0) return
    const table = this.tables.of(pool.id)
    const wanted = new Map(moves.map(move => [move.set, move.row]))
    for (const { volumeId, extent, version } of this.#extentsOf(pool)) {
      const set = stripeSetOf(volumeId, extent)
      const row = wanted.get(set)
      const old = table[set]
      if (row === undefined || old === undefined) continue
      const found = this.#gather(volumeId, extent, version, old)
      if (found.filter(piece => piece !== undefined).length < neededOf(schemeOf(pool))) continue
      const all = restored(schemeOf(pool), found)
      row.forEach((drive, index) => {
        const piece = all[index]
        if (drive !== null && drive !== old[index] && piece !== undefined)
          this.pieces.write(drive, volumeId, extent, index, version, piece)
      })
    }
    for (const { set, row } of moves) table[set] = row
    this.tables.keep(pool.id, table)
  }

  /** Brings pieces up to date on drives that were away while others were written. */
  catchUp(pool: PoolEntity, driveIds: ReadonlySet<string>): void {
    const table = this.tables.of(pool.id)
    for (const { volumeId, extent, version } of this.#extentsOf(pool)) {
      const row = table[stripeSetOf(volumeId, extent)] ?? []
      if (!row.some(drive => drive !== null && driveIds.has(drive))) continue
      const found = this.#gather(volumeId, extent, version, row)
      if (found.filter(piece => piece !== undefined).length < neededOf(schemeOf(pool))) continue
      const all = restored(schemeOf(pool), found)
      row.forEach((drive, index) => {
        const piece = all[index]
        if (drive !== null && driveIds.has(drive) && found[index] === undefined && piece !== undefined)
          this.pieces.write(drive, volumeId, extent, index, version, piece)
      })
    }
  }

  #readExtent(volumeId: string, extent: bigint): Buffer {
    const version = this.#index.of(volumeId).get(extent)
    if (version === undefined) return Buffer.alloc(size)
    const pool = this.#poolOf(volumeId)
    const scheme = schemeOf(pool)
    const found = this.#gather(volumeId, extent, version, this.tables.of(pool.id)[stripeSetOf(volumeId, extent)] ?? [])
    const present = found.filter(piece => piece !== undefined).length
    if (present < neededOf(scheme))
      throw new BytesLost(
        this.#serving.array.one('volumes', volumeId).name,
        extent * extentBytes,
        present,
        neededOf(scheme),
      )
    return Buffer.concat(restored(scheme, found).slice(0, neededOf(scheme))).subarray(0, size)
  }

  #writeExtent(volumeId: string, extent: bigint, whole: Buffer): void {
    const pool = this.#poolOf(volumeId)
    const scheme = schemeOf(pool)
    const set = stripeSetOf(volumeId, extent)
    let row = this.tables.of(pool.id)[set] ?? []
    const readable = this.#readableDrives()
    const isThere = (drive: string | null) => drive !== null && readable.has(drive)
    if (!row.every(isThere)) row = this.#replaced(pool, set, row, readable)
    // One piece more than reading needs: what is acknowledged survives one more loss.
    const least = Math.min(widthOf(scheme), neededOf(scheme) + 1)
    if (row.filter(isThere).length < least)
      throw new NotWritable(this.#serving.array.one('volumes', volumeId).name, row.filter(isThere).length, least)
    const version = (this.#index.of(volumeId).get(extent) ?? 0) + 1
    cut(scheme, whole).forEach((piece, index) => {
      const drive = row[index]
      if (drive !== null && drive !== undefined && readable.has(drive))
        this.pieces.write(drive, volumeId, extent, index, version, piece)
    })
    this.#index.note(volumeId, extent, version)
  }

  /** A set that lacks drives is placed anew at once where there is room, so that writes keep their full width. */
  #replaced(pool: PoolEntity, set: number, row: (string | null)[], readable: ReadonlySet<string>): (string | null)[] {
    const mayUse = (drive: DriveEntity) => readable.has(drive.id)
    if (
      domainsOf(this.#serving, pool, mayUse).filter(domain => domain.drives.length > 0).length < widthOf(schemeOf(pool))
    )
      return row
    const wanted = this.wantedRows(pool, mayUse).find(each => each.set === set)
    if (wanted === undefined) return row
    this.moveSets(pool, [wanted])
    return wanted.row
  }

  #gather(
    volumeId: string,
    extent: bigint,
    version: number,
    row: readonly (string | null)[],
  ): (Uint8Array | undefined)[] {
    const readable = this.#readableDrives()
    return row.map((drive, index) =>
      drive === null || !readable.has(drive) ? undefined : this.pieces.read(drive, volumeId, extent, index, version),
    )
  }

  *#extentsOf(pool: PoolEntity) {
    for (const volume of this.#serving.array.all('volumes')) {
      if (volume.poolId !== pool.id) continue
      for (const [extent, version] of this.#index.of(volume.id)) yield { volumeId: volume.id, extent, version }
    }
  }

  #readableDrives(): Set<string> {
    const row = this.#serving
    return new Set(
      row.array
        .all('drives')
        .filter(drive => drive.poolId !== null && row.isReadable(drive))
        .map(drive => drive.id),
    )
  }

  #poolOf(volumeId: string): PoolEntity {
    return this.#serving.array.one('pools', this.#serving.array.one('volumes', volumeId).poolId)
  }

  get #serving(): SimulatedRow {
    if (this.#row === undefined) throw new Error('The piece store serves no row yet.')
    return this.#row
  }
}
