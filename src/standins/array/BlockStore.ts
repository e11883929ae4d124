import {
  closeSync,
  copyFileSync,
  existsSync,
  linkSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs'
import { flushed } from '../fleet'
import { join } from 'node:path'

/** Where a system keeps the bytes of its volumes. */
export interface VolumeBytes {
  /** Writes and flushes; @returns how many extents the volume stores now */
  write(volumeId: string, offset: bigint, data: Buffer): number
  read(volumeId: string, offset: bigint, length: number): Buffer
  /** Gives back the extents that lie wholly inside; @returns how many the volume stores now */
  discard(volumeId: string, offset: bigint, length: number): number
  forget(volumeId: string): void
  /** Undefined for a store that keeps no copies. */
  readonly copies?: ByteCopies
}

/** Copies that share what is alike: a version of an extent is stored once, whoever holds it. Safe to repeat. */
export interface ByteCopies {
  /** A copy of what a volume or copy holds now. */
  freeze(fromId: string, toId: string): void
  /** Gives a volume what a copy holds, in place of what it has; @returns how many extents it stores now */
  replace(volumeId: string, fromId: string): number
  /** Stores all that a volume shares with others once more, for itself. */
  separate(volumeId: string): void
  /** Extents that nothing else holds. */
  ownExtents(id: string): number
  /** What a volume stores, extent by extent. */
  stored(volumeId: string): Iterable<{ readonly offset: bigint; readonly data: Buffer }>
  /** Versions that a volume no longer has, by the first and last of its copies that hold them; copies in the order in which they were taken. */
  heldRuns(volumeId: string, copyIds: readonly string[]): HeldExtents[]
}

export interface HeldExtents {
  /** Places in the order of the copies. */
  readonly first: number
  readonly last: number
  readonly extents: number
}

/** Bytes that hosts really wrote: one file an extent, so that a volume of any size takes only what was written to it. */
export class BlockStore implements VolumeBytes {
  constructor(
    private readonly folder: string,
    private readonly extentBytes: number,
  ) {}

  /** Writes and flushes; @returns how many extents the volume stores now */
  write(volumeId: string, offset: bigint, data: Buffer): number {
    mkdirSync(this.#folderOf(volumeId), { recursive: true })
    for (const { extent, from, at, length } of this.#spans(offset, data.length)) {
      const path = this.#file(volumeId, extent)
      if (existsSync(path) && statSync(path).nlink > 1) this.#unshare(path)
      const file = openSync(path, existsSync(path) ? 'r+' : 'w+')
      writeSync(file, data, from, length, at)
      flushed(file)
      closeSync(file)
    }
    return this.count(volumeId)
  }

  /** What was never written reads as zeros, as on a thin volume. */
  read(volumeId: string, offset: bigint, length: number): Buffer {
    const data = Buffer.alloc(length)
    for (const { extent, from, at, length: part } of this.#spans(offset, length)) {
      const path = this.#file(volumeId, extent)
      const stored = existsSync(path) ? readFileSync(path) : undefined
      // A file ends where the last write into its extent did.
      if (stored !== undefined && stored.length > at) stored.copy(data, from, at, at + part)
    }
    return data
  }

  /** Gives back the extents that lie wholly inside; @returns how many the volume stores now */
  discard(volumeId: string, offset: bigint, length: number): number {
    for (const { extent, length: part } of this.#spans(offset, length)) {
      if (part === this.extentBytes) rmSync(this.#file(volumeId, extent), { force: true })
    }
    return this.count(volumeId)
  }

  forget(volumeId: string): void {
    rmSync(this.#folderOf(volumeId), { recursive: true, force: true })
  }

  /** A version of an extent is a file with a name in the folder of each that holds it. */
  readonly copies: ByteCopies = {
    freeze: (fromId, toId) => {
      this.forget(toId)
      mkdirSync(this.#folderOf(toId), { recursive: true })
      for (const name of this.#names(fromId))
        linkSync(join(this.#folderOf(fromId), name), join(this.#folderOf(toId), name))
    },
    replace: (volumeId, fromId) => {
      const next = `${volumeId}.next`
      this.copies.freeze(fromId, next)
      this.forget(volumeId)
      renameSync(this.#folderOf(next), this.#folderOf(volumeId))
      return this.count(volumeId)
    },
    separate: volumeId => {
      for (const name of this.#names(volumeId)) {
        const path = join(this.#folderOf(volumeId), name)
        if (statSync(path).nlink > 1) this.#unshare(path)
      }
    },
    ownExtents: id => this.#names(id).filter(name => statSync(join(this.#folderOf(id), name)).nlink === 1).length,
    stored: volumeId => this.#stored(volumeId),
    heldRuns: (volumeId, copyIds) => this.#heldRuns(volumeId, copyIds),
  }

  #heldRuns(volumeId: string, copyIds: readonly string[]): HeldExtents[] {
    const versions = (id: string) =>
      new Map(this.#names(id).map(name => [name, statSync(join(this.#folderOf(id), name)).ino] as const))
    const live = versions(volumeId)
    const counts = new Map<string, number>()
    const open = new Map<string, { readonly version: number; readonly first: number }>()
    const close = (name: string, before: number) => {
      const run = open.get(name)
      if (run === undefined) return
      open.delete(name)
      if (live.get(name) === run.version) return
      const key = `${run.first}-${before}`
      counts.set(key, (counts.get(key) ?? 0) + 1)
    }
    copyIds.forEach((id, place) => {
      const held = versions(id)
      for (const [name, run] of open) if (held.get(name) !== run.version) close(name, place - 1)
      for (const [name, version] of held) if (!open.has(name)) open.set(name, { version, first: place })
    })
    for (const name of [...open.keys()]) close(name, copyIds.length - 1)
    return [...counts].map(([key, extents]) => {
      const [first = 0, last = 0] = key.split('-').map(Number)
      return { first, last, extents }
    })
  }

  *#stored(volumeId: string) {
    for (const name of this.#names(volumeId))
      yield {
        offset: BigInt(name.replace('.extent', '')) * BigInt(this.extentBytes),
        data: readFileSync(join(this.#folderOf(volumeId), name)),
      }
  }

  /** Others keep the version that they share; this name gets one of its own. */
  #unshare(path: string): void {
    copyFileSync(path, `${path}.own`)
    renameSync(`${path}.own`, path)
  }

  #names(id: string): string[] {
    return existsSync(this.#folderOf(id))
      ? readdirSync(this.#folderOf(id)).filter(name => name.endsWith('.extent'))
      : []
  }

  count(volumeId: string): number {
    return this.#names(volumeId).length
  }

  #folderOf(volumeId: string): string {
    return join(this.folder, volumeId)
  }

  #file(volumeId: string, extent: bigint): string {
    return join(this.#folderOf(volumeId), `${extent}.extent`)
  }

  #spans(offset: bigint, length: number): { extent: bigint; from: number; at: number; length: number }[] {
    const size = BigInt(this.extentBytes)
    const spans = []
    for (let from = 0; from < length; ) {
      const position = offset + BigInt(from)
      const at = Number(position % size)
      const part = Math.min(length - from, this.extentBytes - at)
      spans.push({ extent: position / size, from, at, length: part })
      from += part
    }
    return spans
  }
}
