import type { ChangeRecord, JournalEntry } from '@/core/views'
import { kindNamed, type Facts } from '@/changes'
import type { AnyKind } from '@/changes/ChangeKind'
import { refusalOf } from '@/core/errors'
import { isStale, planDifference } from '@/core/plan'
import { estateNow, planNow } from '@/drafting'
import { inTransaction } from '@/records'
import {
  backToDraft,
  changeById,
  endChange,
  journalOf,
  keepEvidence,
  keepOutcome,
  mark,
  type ChangeEnd,
} from '@/records/changes'
import { collectSystem } from '../collectSystem'
import { NotProven, StopWanted } from '../errors'
import type { World } from '../World'
import { holdChange } from './holdChange'
import { isOurs, withPatience } from './patience'
import { portsFor } from './portsFor'

/**
 * Carries out a running change from wherever its journal says it stands. Safe to call at any time and from any number of
 * processes: one that does not get hold of the change leaves it alone.
 */
export async function runChange(world: World, changeId: string): Promise<void> {
  const hold = await holdChange(world.url, changeId)
  if (hold === undefined) return
  try {
    const change = await changeById({ database: world.database }, changeId)
    if (change?.state === 'running') await new Run(world, change, hold.lost).go()
  } finally {
    await hold.release()
  }
}

class Run {
  readonly #kind: AnyKind
  #facts: Facts = {}
  #journal: readonly JournalEntry[] = []

  constructor(
    private readonly world: World,
    private readonly change: ChangeRecord,
    private readonly lost: AbortSignal,
  ) {
    this.#kind = kindNamed(change.kind)
  }

  async go(): Promise<void> {
    this.#journal = await journalOf(this.#scope, this.change.id)
    this.#facts = Object.assign({}, ...this.#journal.map(entry => entry.facts)) as Facts
    try {
      if (this.change.isUndoWanted) return await this.#end('undone', { stands: await this.#undo() })
      if (this.#journal.length === 0 && !(await this.#stillRests())) return
      for (const index of this.change.plan.steps.keys()) if (!this.#isDone(index)) await this.#step(index)
      await this.#prove()
    } catch (cause) {
      await this.#broken(cause)
    }
  }

  /** Before the first step: the plan must still rest on the estate as it is; else it goes back to its maker. */
  async #stillRests(): Promise<boolean> {
    const plan = await planNow(this.#scope, this.change.kind, this.change.intent, this.change.id)
    if (!isStale(this.change.plan, plan)) return true
    await inTransaction(this.world.database, scope =>
      backToDraft(scope, this.change.id, plan, planDifference(this.change.plan, plan)),
    )
    return false
  }

  async #step(index: number): Promise<void> {
    const planned = this.change.plan.steps[index]
    if (planned === undefined) return
    if (!this.#journal.some(entry => entry.stepIndex === index && entry.event === 'begun'))
      await this.#mark(index, 'begun', planned.words)
    const ports = portsFor(this.world, this.change, { index, facts: () => this.#facts }, this.lost)
    const found = await withPatience(
      () => this.#kind.runStep(planned.step, { key: this.#key(index), facts: this.#facts }, ports),
      cause => this.#waitOut(index, cause),
      ports.signal,
    )
    this.#facts = { ...this.#facts, ...found }
    await this.#mark(index, 'done', planned.words, found)
    await this.#collect()
  }

  async #prove(): Promise<void> {
    const ports = portsFor(
      this.world,
      this.change,
      { index: this.change.plan.steps.length, facts: () => this.#facts },
      this.lost,
    )
    const evidence = await withPatience(
      () => this.#kind.prove(this.change.intent, this.change.plan, this.#facts, ports),
      cause => this.#waitOut(this.change.plan.steps.length, cause),
      ports.signal,
    )
    for (const entry of evidence) await keepEvidence(this.#scope, this.change.id, entry)
    await this.#collect()
    const fallen = evidence.filter(entry => !entry.holds)
    if (fallen.length === 0) return this.#end('proven')
    await this.#end('failed', {
      refusal: refusalOf(new NotProven(fallen.map(entry => entry.claim))),
      stands: 'All steps were carried out, and what they made is left as it is.',
    })
  }

  async #broken(cause: unknown): Promise<void> {
    // A process that ends, or that has lost the database, leaves the change as it is: another takes it up.
    if (isOurs(cause) || this.world.stop.aborted || this.lost.aborted) throw cause
    if (cause instanceof StopWanted)
      return this.#end('stopped', { refusal: refusalOf(cause), stands: this.#standing() })
    const index = this.change.plan.steps.findIndex((_, each) => !this.#isDone(each))
    await this.#mark(index < 0 ? this.change.plan.steps.length : index, 'failed', refusalOf(cause).why)
    const stands = await this.#undo().catch((undoing: unknown) => {
      if (isOurs(undoing) || this.world.stop.aborted) throw undoing
      return `${this.#standing()} Taking it back did not succeed either: ${refusalOf(undoing).why}`
    })
    await this.#end('failed', { refusal: refusalOf(cause), stands })
  }

  /** Takes back what begun steps have made, the last first. @returns what stands nevertheless */
  async #undo(): Promise<string> {
    this.#journal = await journalOf(this.#scope, this.change.id)
    const begun = [...this.change.plan.steps.keys()]
      .filter(index => this.#has(index, 'begun') && !this.#has(index, 'undone'))
      .reverse()
    const standing: string[] = []
    for (const index of begun) {
      const ports = portsFor(
        this.world,
        { ...this.change, isStopWanted: false },
        { index, facts: () => this.#facts },
        this.lost,
      )
      const planned = this.change.plan.steps[index]
      const stands = await withPatience(
        () => this.#kind.undoStep(planned?.step, { key: this.#key(index), facts: this.#facts }, ports),
        async () => undefined,
        ports.signal,
      )
      if (stands !== undefined) standing.push(stands)
      await this.#mark(index, 'undone', stands ?? 'Taken back.')
    }
    await this.#collect()
    return standing.length === 0 ? 'Nothing stands: what had been made was taken back.' : standing.join(' ')
  }

  #standing(): string {
    const done = this.change.plan.steps.filter((_, index) => this.#isDone(index)).map(step => step.words)
    return done.length === 0 ? 'No step had come to its end.' : `Done so far: ${done.join('; ')}.`
  }

  async #waitOut(index: number, cause: unknown): Promise<void> {
    const { why } = refusalOf(cause)
    if ((await changeById(this.#scope, this.change.id))?.isStopWanted === true) throw new StopWanted()
    await this.#mark(index, 'progress', `Waiting: ${why}`)
  }

  /** Reads the touched systems anew. One that does not answer now is read later by the collector. */
  async #collect(): Promise<void> {
    const systems = this.#kind.collects(
      this.change.intent,
      await portsFor(this.world, this.change, { index: 0, facts: () => this.#facts }, this.lost).estate(),
      this.#facts,
    )
    for (const systemId of systems) {
      await collectSystem(this.world, systemId).catch((cause: unknown) => {
        if (isOurs(cause)) throw cause
      })
    }
  }

  async #mark(stepIndex: number, event: JournalEntry['event'], words: string, facts?: Facts): Promise<void> {
    await mark(this.#scope, this.change.id, {
      stepIndex,
      event,
      words,
      estateAt: await estateNow(this.#scope),
      ...(facts === undefined ? {} : { facts }),
    })
    this.#journal = await journalOf(this.#scope, this.change.id)
  }

  async #end(state: ChangeEnd['state'], more: Partial<Pick<ChangeEnd, 'refusal' | 'stands'>> = {}): Promise<void> {
    const estateAt = await estateNow(this.#scope)
    await inTransaction(this.world.database, async scope => {
      await endChange(scope, this.change.id, { state, estateAt, facts: this.#facts, ...more })
      if (state === 'proven') await keepOutcome(scope, this.change.id)
    })
  }

  #has(index: number, event: JournalEntry['event']): boolean {
    return this.#journal.some(entry => entry.stepIndex === index && entry.event === event)
  }

  #isDone(index: number): boolean {
    return this.#has(index, 'done')
  }

  #key(index: number): string {
    return `${this.change.id}/${index}`
  }

  get #scope() {
    return { database: this.world.database }
  }
}
