import type { Caller } from './fileRights'

/** Why a server did not do what a host wanted of it. */
export interface NotDone {
  readonly kind: 'refused' | 'not there' | 'full' | 'silent'
  readonly why: string
}

export type Done<T> = { readonly kind: 'done'; readonly value: T } | NotDone

export type Identity = Omit<Caller, 'address' | 'name'>
/** Numbers over NFS; over SMB an account that has signed in on the host. */
export type Who = Identity | { readonly account: string }

/** What is listed: a directory, behind one of its files. */
export interface ListWanted {
  /** Empty for all of the share. */
  readonly within: string
  readonly after: string
  readonly limit: number
}

/** A page of a walk. */
export interface Listed {
  readonly files: readonly {
    readonly path: string
    readonly uid: number
    readonly gid: number
    readonly bytes: number
    readonly modifiedAt: number
    readonly head: string
  }[]
  readonly isLast: boolean
}

/** A file to be written. */
export interface FileWanted {
  readonly name: string
  readonly length: number
  /** From which its bytes follow; null where room is only reserved. */
  readonly seed: string | null
  /** Its first bytes, in hexadecimal. */
  readonly head: string
}
