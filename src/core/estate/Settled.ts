import type { FieldOf, KindName } from './kinds'

/**
 * What a change has set on a system, and nothing else should set otherwise: fields of one object, as the system's inventory states them.
 * An object that the change itself has made is named by where it stands.
 */
export type Settled = {
  readonly [Name in KindName]: {
    readonly kind: Name
    readonly of: { readonly id: string } | { readonly systemId: string; readonly locator: string }
    readonly fields: readonly FieldOf<Name>[]
  }
}[KindName]
