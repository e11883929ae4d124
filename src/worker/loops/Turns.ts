/**
 * Whose turn it is to be asked: all that answered when they were asked last, and after them a few of those that did not, those first that
 * were asked longest ago. A thousand that do not answer hold up the others no longer than a few.
 */
export class Turns {
  /** In the order in which they were asked. */
  readonly #silent = new Set<string>()

  /** @param silentAtOnce how many of those that did not answer are asked again each time */
  constructor(private readonly silentAtOnce: number) {}

  next(ids: readonly string[]): readonly string[] {
    const there = new Set(ids)
    for (const id of this.#silent) if (!there.has(id)) this.#silent.delete(id)
    return [...ids.filter(id => !this.#silent.has(id)), ...[...this.#silent].slice(0, this.silentAtOnce)]
  }

  asked(id: string, hasAnswered: boolean): void {
    this.#silent.delete(id)
    if (!hasAnswered) this.#silent.add(id)
  }
}
