import type { CodedRefusal } from '@/core/errors'
import type { ShownPlan } from '@/core/plan'
import type { ShownChange } from '@/core/views'
import { ask, type Answered } from '../api'

/** What the server has answered to the latest write. */
export interface Written {
  /** The intent as it was sent, as JSON: a plan is of that intent and of no other. */
  readonly of: string
  readonly plan: ShownPlan
  /** Undefined for a plan of what is not kept yet. */
  readonly change: ShownChange | undefined
}

/** What is told of the writes. */
export interface Hearing {
  readonly wrote: (written: Written) => void
  readonly refused: (refusal: CodedRefusal) => void
}

/**
 * Writes a draft to the server: one write at a time, always of the latest intent. A write that is overtaken while it is on its way is
 * followed by another; none is ever passed by an older one.
 */
export class DraftWriter {
  #change: ShownChange | undefined
  #wanted: { readonly text: string; readonly isKept: boolean } | undefined
  #working: Promise<void> | undefined
  #done = ''
  #hearing: Hearing | undefined

  constructor(
    private readonly kind: string,
    kept: ShownChange | undefined,
  ) {
    this.#change = kept
    // What is kept has its plan already; it is planned anew only when it is altered.
    if (kept !== undefined) this.#done = JSON.stringify(kept.intent)
  }

  /** From now on it is this one that is told. */
  listen(hearing: Hearing): void {
    this.#hearing = hearing
  }

  get change(): ShownChange | undefined {
    return this.#change
  }

  /** Whether a write is on its way. */
  get isWriting(): boolean {
    return this.#working !== undefined
  }

  /** Whether what was asked for last has been answered. */
  isWritten(intent: object): boolean {
    return this.#working === undefined && this.#done === JSON.stringify(intent)
  }

  /** @param isKept whether it is kept as a draft, or only planned @returns when this intent, or a later one, has been answered */
  write(intent: object, isKept: boolean, isAgain = false): Promise<void> {
    const text = JSON.stringify(intent)
    if (isAgain) this.#done = ''
    const isKeptAlready = this.#change !== undefined || !isKept
    if (this.#done === text && isKeptAlready && this.#working === undefined) return Promise.resolve()
    this.#wanted = { text, isKept: isKept || this.#change !== undefined }
    this.#working ??= this.#work().finally(() => (this.#working = undefined))
    return this.#working
  }

  /** What somebody else has made of the draft is taken as it is; what is written next rests on it. */
  rebase(change: ShownChange): void {
    this.#change = change
    this.#done = ''
  }

  async #work(): Promise<void> {
    for (let next = this.#take(); next !== undefined; next = this.#take()) {
      const answer = await this.#send(next.text, next.isKept)
      if (!answer.ok) {
        // Overtaken meanwhile: the later one is sent all the same.
        if (this.#wanted === undefined) return this.#hearing?.refused(answer.refusal)
        continue
      }
      this.#done = next.text
      const { plan, change } = answer.value
      this.#change = change ?? this.#change
      this.#hearing?.wrote({ of: next.text, plan, change })
    }
  }

  #take() {
    const next = this.#wanted
    this.#wanted = undefined
    return next
  }

  async #send(text: string, isKept: boolean): Promise<Answered<Omit<Written, 'of'>>> {
    const intent: unknown = JSON.parse(text)
    const change = this.#change
    if (change === undefined && !isKept) {
      const answer = await ask<ShownPlan>('POST', '/plans', { kind: this.kind, intent })
      return answer.ok ? { ok: true, value: { plan: answer.value, change: undefined } } : answer
    }
    const answer =
      change === undefined
        ? await ask<ShownChange>('POST', '/changes', { kind: this.kind, intent })
        : await ask<ShownChange>('PUT', `/changes/${change.id}`, { intent, edit: change.edit })
    return answer.ok ? { ok: true, value: { plan: answer.value.plan, change: answer.value } } : answer
  }
}
