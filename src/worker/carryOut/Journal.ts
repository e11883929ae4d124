import type { Facts } from '@/changes'
import type { ChangeRecord, JournalEntry } from '@/core/views'
import type { Scope } from '@/records'
import { journalOf, mark } from '@/records/changes'
import { estateNow } from '@/records/inventory'

/** What a change's journal says of its steps. Whoever takes the change up goes by this and by nothing else. */
export class Journal {
  static readonly takenBack = 'Taken back.'
  #entries: readonly JournalEntry[] = []

  constructor(
    private readonly scope: Scope,
    private readonly change: ChangeRecord,
    /** Throws where the change is no longer this process's to write to. */
    private readonly throwIfLost: () => void,
  ) {}

  async read(): Promise<void> {
    this.#entries = await journalOf(this.scope, this.change.id)
  }

  async mark(
    stepIndex: number,
    event: JournalEntry['event'],
    words: string,
    facts?: Facts,
    doneRatio?: number,
  ): Promise<void> {
    this.throwIfLost()
    await mark(this.scope, this.change.id, {
      stepIndex,
      event,
      words,
      estateAt: await estateNow(this.scope),
      ...(facts === undefined ? {} : { facts }),
      ...(doneRatio === undefined ? {} : { doneRatio }),
    })
    await this.read()
  }

  get isEmpty(): boolean {
    return this.#entries.length === 0
  }

  get hasFailed(): boolean {
    return this.#entries.some(entry => entry.event === 'failed')
  }

  get lastWords(): string | undefined {
    return this.#entries.at(-1)?.words
  }

  get isWholeDone(): boolean {
    return this.change.plan.steps.every((_, index) => this.isDone(index))
  }

  /** What the steps have found so far. */
  facts(): Facts {
    return Object.assign({}, ...this.#entries.map(entry => entry.facts)) as Facts
  }

  has(stepIndex: number, event: JournalEntry['event']): boolean {
    return this.#entries.some(entry => entry.stepIndex === stepIndex && entry.event === event)
  }

  isDone(stepIndex: number): boolean {
    return this.has(stepIndex, 'done')
  }

  /** Steps that were begun and not taken back, the last first. */
  toTakeBack(): number[] {
    return [...this.change.plan.steps.keys()]
      .filter(index => this.has(index, 'begun') && !this.has(index, 'undone'))
      .reverse()
  }

  doneWords(): string {
    const done = this.change.plan.steps.filter((_, index) => this.isDone(index)).map(step => step.words)
    return done.length === 0 ? 'No step had come to its end.' : `Done so far: ${done.join('; ')}.`
  }

  /** What stands although it was to be taken back. */
  standsWords(): string {
    const standing = this.#entries.filter(entry => entry.event === 'undone' && entry.words !== Journal.takenBack)
    return standing.length === 0
      ? 'Nothing stands: what had been made was taken back.'
      : standing.map(entry => entry.words).join(' ')
  }
}
