export type FindingGravity = 'now' | 'soon' | 'note'

/** Something that is wrong or will be, with all that is needed to act on it, also without a network. */
export interface Finding {
  /** The same each time the same thing is found: check and objects. */
  readonly key: string
  readonly check: string
  readonly gravity: FindingGravity
  /** What is wrong, in one line. */
  readonly title: string
  /** What was seen, where and when it was measured. */
  readonly evidence: string
  readonly risk: string
  readonly remedy: string
  /** The change that would mend it, where there is one. */
  readonly draft: {
    readonly kind: string
    readonly intent: Readonly<Record<string, unknown>>
    readonly href: string
  } | null
  /** What to do in the machine room, where no screen is at hand. */
  readonly offline: string
  /** Keys of findings that, where they stand too, explain this one. */
  readonly explainedBy: readonly string[]
}

/** A finding with those that it explains beneath it. */
export interface FindingTree {
  readonly finding: Finding
  readonly beneath: readonly FindingTree[]
}
