import { appendFileSync, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'

/** Which extents a volume has and which write of each is the last: a line a write, the newest counts. */
export class ExtentIndex {
  readonly #versions = new Map<string, Map<bigint, number>>()

  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true })
  }

  of(volumeId: string): ReadonlyMap<bigint, number> {
    const known = this.#versions.get(volumeId)
    if (known !== undefined) return known
    const versions = new Map<bigint, number>()
    const path = this.#path(volumeId)
    if (existsSync(path)) {
      for (const line of readFileSync(path, 'utf8').split('\n')) {
        const [extent, version] = line.split(' ')
        if (version === undefined || extent === undefined || !/^\d+$/.test(version)) continue
        if (version === '0') versions.delete(BigInt(extent))
        else versions.set(BigInt(extent), Number(version))
      }
    }
    this.#versions.set(volumeId, versions)
    return versions
  }

  /** @param version of the write; 0 takes the extent out */
  note(volumeId: string, extent: bigint, version: number): void {
    const versions = this.of(volumeId) as Map<bigint, number>
    appendFileSync(this.#path(volumeId), `${extent} ${version}\n`, { flush: true })
    if (version === 0) versions.delete(extent)
    else versions.set(extent, version)
  }

  forget(volumeId: string): void {
    this.#versions.delete(volumeId)
    rmSync(this.#path(volumeId), { force: true })
  }

  #path(volumeId: string): string {
    return join(this.folder, `${volumeId}.extents`)
  }
}
