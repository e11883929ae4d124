import type { StorageSystem } from '@/ports'
import { collectSystem } from '../collect/collectSystem'
import type { World } from '../World'

/** What had been done to a system when a reading of it began. */
interface Standing {
  readonly system: StorageSystem
  readonly changesSent: number
  readonly acts: number
}

/** The readings that one run of a change makes of systems: none is read again for what its last reading has told already. */
export class Readings {
  #acts = 0
  readonly #last = new Map<string, Standing>()

  constructor(
    private readonly world: World,
    private readonly collect = collectSystem,
  ) {}

  /** Something was done that a system may show without having been asked for it: by a host or a node, or by a task that has ended. */
  acted(): void {
    this.#acts += 1
  }

  /** Reads a system into the records. @throws what the connector throws */
  async read(systemId: string): Promise<void> {
    const before = await this.#standing(systemId)
    await this.collect(this.world, systemId)
    this.#last.set(systemId, before)
  }

  /** Reads it unless nothing was done since this run has read it. Only what this process does counts: the rest is told by the system. */
  async readUnlessKnown(systemId: string): Promise<void> {
    const last = this.#last.get(systemId)
    const now = await this.#standing(systemId)
    const isKnown = last?.system === now.system && last.changesSent === now.changesSent && last.acts === now.acts
    if (!isKnown) await this.read(systemId)
  }

  async #standing(systemId: string): Promise<Standing> {
    const system = await this.world.system(systemId)
    return { system, changesSent: system.changesSent(), acts: this.#acts }
  }
}
