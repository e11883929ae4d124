import type { Principal, Share } from '../estate'

/** Somebody of a directory, with every group above them, through others too. */
export interface Somebody {
  readonly person: Principal
  readonly groups: readonly Principal[]
}

/** A group that somebody would be in, or would leave. */
export interface Supposed {
  readonly what: 'in' | 'not in'
  readonly group: Principal
}

/** A person's or a group's page. */
export interface PersonPage extends Somebody {
  readonly directoryName: string
  /** Who is in a group itself; the first of them. */
  readonly members: readonly Pick<Principal, 'id' | 'name' | 'account' | 'sort' | 'isDisabled'>[]
  readonly memberCount: number
  readonly shares: readonly Share[]
  readonly shareCount: number
  readonly services: readonly {
    readonly id: string
    readonly name: string
    readonly joinedTo: string | null
    readonly addresses: readonly string[]
  }[]
  readonly hosts: readonly {
    readonly name: string
    readonly addresses: readonly string[]
    readonly clientName?: string | null
  }[]
  /** What is supposed of somebody; the groups above that group are among the others. Null where nothing is. */
  readonly supposed: Supposed | null
}
