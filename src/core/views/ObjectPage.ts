import type { ObjectKind } from '../estate'

/** One object, whatever its kind, with what it refers to. */
export interface ObjectPage {
  readonly object: Readonly<Record<string, unknown>>
  readonly title: string
  /** Since when its system does not state it any more; null while it does. */
  readonly missingSince: string | null
  readonly references: readonly {
    readonly field: string
    readonly kind: ObjectKind
    readonly id: string
    readonly name: string
  }[]
}
