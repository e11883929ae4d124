import { kindNamed, TaskRuns, type AnyKind, type Evidence, type Facts } from '@/changes'
import type { ChangeRecord } from '@/core/views'
import { estateNow, forgetSettled, keepSettled } from '@/records/inventory'
import { refusalOf } from '@/core/errors'
import { isStale, planDifference } from '@/core/plan'
import { planNow } from '@/drafting'
import { inTransaction } from '@/records'
import {
  backToDraft,
  changeById,
  endChange,
  endWait,
  noteRefusal,
  waitOf,
  type ChangeEnd,
  type Wait,
} from '@/records/changes'
import { HoldLost, NotProven, StopWanted } from '../errors'
import type { World } from '../World'
import { giveSlotBack } from './giveSlotBack'
import { Journal } from './Journal'
import { isOurs, Later, Patience, withPatience } from './patience'
import { portsFor, type Standing } from './portsFor'
import { Readings } from './Readings'

/** One run of a change: its steps, its proof, and what is done where either breaks. */
export class Run {
  readonly #kind: AnyKind
  #facts: Facts = {}
  readonly #journal: Journal
  readonly #readings: Readings
  #wait: Wait | undefined
  #patience = new Patience({})
  /** The step at work; after the last one, the proof. */
  #index = 0

  constructor(
    private readonly world: World,
    private readonly change: ChangeRecord,
    private readonly lost: AbortSignal,
  ) {
    this.#kind = kindNamed(change.kind)
    this.#readings = new Readings(world)
    this.#journal = new Journal(this.#scope, change, () => this.#throwIfLost())
  }

  async go(): Promise<void> {
    await this.#journal.read()
    this.#facts = this.#journal.facts()
    this.#wait = await waitOf(this.#scope, this.change.id)
    this.#patience = new Patience(this.#wait?.failing ?? {})
    try {
      if (this.change.isUndoWanted) await this.#end('undone', { stands: await this.#undo() })
      else if (this.#journal.hasFailed) await this.#takeBack()
      else await this.#forward()
    } catch (cause) {
      if (!(cause instanceof TaskRuns) && !(cause instanceof Later)) throw cause
      this.#throwIfLost()
      const { failing } = this.#patience
      const canStop = !this.change.isUndoWanted && !this.#journal.hasFailed
      const wait = { changeId: this.change.id, stepIndex: this.#index, cause, failing, canStop }
      await giveSlotBack(this.world.database, wait)
      if (cause instanceof TaskRuns && this.#wait?.task !== cause.task)
        await this.#journal.mark(this.#index, 'progress', cause.words, undefined, cause.doneRatio)
    }
  }

  async #forward(): Promise<void> {
    try {
      if (this.#journal.isEmpty && !(await this.#stillRests())) return
      for (const index of this.change.plan.steps.keys()) if (!this.#journal.isDone(index)) await this.#step(index)
      await this.#prove()
    } catch (cause) {
      if (cause instanceof TaskRuns || cause instanceof Later) throw cause
      await this.#broken(cause)
    }
  }

  /** Before the first step: the plan must still rest on the estate as it is; else it goes back to its maker. */
  async #stillRests(): Promise<boolean> {
    const plan = await planNow(this.#scope, this.change.kind, this.change.intent, this.change.id)
    if (!isStale(this.change.plan, plan)) return true
    // The plan may have taken until after the hold was lost: then it says what another process has made of the estate.
    this.#throwIfLost()
    const isBack = await inTransaction(this.world.database, scope =>
      backToDraft(scope, this.change, plan, planDifference(this.change.plan, plan)),
    )
    if (!isBack) throw new HoldLost()
    return false
  }

  async #step(index: number): Promise<void> {
    const planned = this.change.plan.steps[index]
    if (planned === undefined) return
    this.#index = index
    await this.#mayGoOn()
    if (!this.#journal.has(index, 'begun')) await this.#journal.mark(index, 'begun', planned.words)
    const ports = portsFor(this.world, this.change, this.#standing(index))
    const found = await withPatience(
      () => this.#kind.runStep(planned.step, { key: this.#key(index), facts: this.#facts }, ports),
      this.#patience,
      cause => this.#waitOut(index, cause),
      ports.signal,
    )
    this.#facts = { ...this.#facts, ...found }
    await this.#journal.mark(index, 'done', planned.words, found)
    await this.#stepIsOver()
    await this.#collectTouched()
  }

  async #prove(): Promise<void> {
    const index = this.change.plan.steps.length
    this.#index = index
    await this.#mayGoOn()
    const ports = portsFor(this.world, this.change, this.#standing(index))
    const evidence = await withPatience(
      () => this.#kind.prove(this.change.intent, this.change.plan, this.#facts, ports),
      this.#patience,
      cause => this.#waitOut(index, cause),
      ports.signal,
    )
    await this.#collectTouched()
    const fallen = evidence.filter(entry => !entry.holds).map(entry => entry.claim)
    // Nothing that was tested proves nothing.
    if (evidence.length > 0 && fallen.length === 0) return this.#end('proven', { evidence })
    await this.#end('unproven', {
      evidence,
      refusal: refusalOf(new NotProven(evidence.length === 0 ? ['anything at all was tested'] : fallen)),
      stands: 'All steps were carried out, and what they made is left as it is.',
    })
  }

  async #broken(cause: unknown): Promise<void> {
    // A process that ends, or that has lost the database, leaves the change as it is: another takes it up.
    if (isOurs(cause) || this.world.stop.aborted || this.lost.aborted) throw cause
    if (cause instanceof StopWanted)
      return this.#end('stopped', { refusal: refusalOf(cause), stands: this.#journal.doneWords() })
    if (refusalOf(cause).code === 'wendrel.unexpected') console.error(`change ${this.change.number}`, cause)
    const { length } = this.change.plan.steps
    if (this.#index === length && this.#journal.isWholeDone) {
      // The proof itself could not be made: nothing is taken back for that.
      const stands = 'All steps were carried out, and what they made is left as it is.'
      return this.#end('unproven', { refusal: refusalOf(cause), stands })
    }
    await noteRefusal(this.#scope, this.change.id, refusalOf(cause))
    await this.#journal.mark(this.#index, 'failed', refusalOf(cause).why)
    await this.#stepIsOver()
    await this.#takeBack()
  }

  /** What a step that failed has begun is taken back, also by a process that takes the change up in the middle of it. */
  async #takeBack(): Promise<void> {
    const stands = await this.#undo().catch((undoing: unknown) => {
      const isPaused = undoing instanceof TaskRuns || undoing instanceof Later
      if (isPaused || isOurs(undoing) || this.world.stop.aborted || this.lost.aborted) throw undoing
      return `${this.#journal.doneWords()} Taking it back did not succeed either: ${refusalOf(undoing).why}`
    })
    const refusal = (await changeById(this.#scope, this.change.id))?.refusal
    await this.#end('failed', { ...(refusal == null ? {} : { refusal }), stands })
  }

  /** Takes back what begun steps have made, the last first. @returns what stands nevertheless */
  async #undo(): Promise<string> {
    await this.#journal.read()
    for (const index of this.#journal.toTakeBack()) {
      this.#index = index
      const ports = portsFor(this.world, this.change, { ...this.#standing(index), canStop: false })
      const planned = this.change.plan.steps[index]
      const stands = await withPatience(
        () => this.#kind.undoStep(planned?.step, { key: this.#key(index), facts: this.#facts }, ports),
        this.#patience,
        async () => undefined,
        ports.signal,
      )
      await this.#journal.mark(index, 'undone', stands ?? Journal.takenBack)
      await this.#stepIsOver()
    }
    await this.#collectTouched()
    return this.#journal.standsWords()
  }

  #standing(index: number): Standing {
    return {
      index,
      facts: () => this.#facts,
      learn: facts => (this.#facts = { ...this.#facts, ...facts }),
      patience: this.#patience,
      readings: this.#readings,
      waitedSince: this.#wait?.task === null ? undefined : this.#wait?.beganAt,
      lost: this.lost,
      canStop: true,
    }
  }

  /** A stop takes effect between steps, and wherever a step waits. */
  async #mayGoOn(): Promise<void> {
    this.#throwIfLost()
    if ((await changeById(this.#scope, this.change.id))?.isStopWanted === true) throw new StopWanted()
  }

  #throwIfLost(): void {
    if (this.lost.aborted) throw new HoldLost()
  }

  async #stepIsOver(): Promise<void> {
    await endWait(this.#scope, this.change.id)
    this.#wait = undefined
    this.#patience = new Patience({})
  }

  async #waitOut(index: number, cause: unknown): Promise<void> {
    await this.#mayGoOn()
    const words = `Waiting: ${refusalOf(cause).why}`
    if (this.#journal.lastWords !== words) await this.#journal.mark(index, 'progress', words)
  }

  async #collectTouched(): Promise<void> {
    const estate = await portsFor(this.world, this.change, this.#standing(this.#index)).estate()
    for (const systemId of this.#kind.collects(this.change.intent, estate, this.#facts)) {
      // One that does not answer now is read later, in its turn.
      await this.#readings.readUnlessKnown(systemId).catch((cause: unknown) => {
        if (isOurs(cause)) throw cause
      })
    }
  }

  async #end(
    state: ChangeEnd['state'],
    more: Partial<Pick<ChangeEnd, 'refusal' | 'stands'>> & { readonly evidence?: readonly Evidence[] } = {},
  ): Promise<void> {
    this.#throwIfLost()
    const estateAt = await estateNow(this.#scope)
    const settled = this.#kind.settles?.(this.change.plan, this.#facts) ?? []
    await inTransaction(this.world.database, async scope => {
      await endChange(scope, this.change.id, { state, estateAt, facts: this.#facts, ...more })
      if (state === 'proven') await keepSettled(scope, this.change.id, settled, estateAt)
      else await forgetSettled(scope, settled)
    })
  }

  #key(index: number): string {
    return `${this.change.id}/${index}`
  }

  get #scope() {
    return { database: this.world.database }
  }
}
