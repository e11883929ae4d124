/** Somebody who has signed in on a host, by the account that a directory has. */
export interface SignedInCaller {
  readonly account: string
}

/** Who somebody on a host is to files over NFS. */
export interface FileCaller {
  readonly uid: number
  readonly gid: number
  readonly groups: readonly number[]
}
