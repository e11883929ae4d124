import type { FileCaller, SignedInCaller } from './Caller'
import type { HostNetwork } from './HostNetwork'
import type { SignInSecrets } from './resources'

export interface HostIdentity {
  readonly name: string
  readonly operatingSystem: string
  readonly initiators: readonly string[]
  /** By which it is known on the network; absent where the host does not say. */
  readonly addresses?: readonly string[]
}

export interface HostDevice {
  readonly naa: string
  readonly sizeBytes: bigint
  readonly lun: number
  readonly path: string
  /** The ways to it, by the target at which each ends; undefined where the host says nothing of them. */
  readonly paths?: readonly { readonly target: string; readonly isUp: boolean }[]
}

export const fileSystems = ['xfs', 'ext4'] as const
export type FileSystem = (typeof fileSystems)[number]

/** A file system on a disk of a host. */
export interface HostFileSystem {
  readonly naa: string
  readonly fileSystem: FileSystem
  readonly uuid: string
  readonly sizeBytes: bigint
  readonly usedBytes: bigint
  /** Where it is mounted now; null while it is not. */
  readonly mountedAt: string | null
  /** Where the host mounts it by itself when it starts; null where it does not. */
  readonly mountsAt: string | null
}

type Caller = FileCaller | SignedInCaller

/** What came of an attempt: a sum of what was written or read, or why a server refused it. What failed otherwise is thrown. */
export type Attempt = { readonly sha256: string } | { readonly refused: string }

/** Files as a walk finds them; `head` are a file's first bytes in hexadecimal. */
export interface ListedPage {
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

/** How a host gets to a server. */
export interface Connected {
  /** To which its name leads; null where it leads nowhere. */
  readonly address: string | null
  readonly isOpen: boolean
  /** Of all of it. */
  readonly milliseconds: number
  /** Of looking its name up; absent where the host does not say. */
  readonly lookupMilliseconds?: number
}

/** Which bytes of a file; behind its end there are none. */
export interface FilePart {
  readonly offsetBytes: number
  readonly lengthBytes: number
}

/** Shares of the network on a host, and what somebody on it may do with them. */
export interface HostShares {
  /** Where a server's name leads to, and whether it answers there. */
  readonly connect: (server: string) => Promise<Connected>
  readonly mounted: () => Promise<
    readonly { readonly server: string; readonly share: string; readonly path: string; readonly isMounted: boolean }[]
  >
  /** Mounts now and at every start; safe to repeat. @param share its path, or its name behind two slashes over SMB. @returns why it was refused; undefined where it was not */
  readonly mount: (server: string, share: string, path: string) => Promise<string | undefined>
  /** Writes a file whose bytes follow from a seed, as somebody. @param head its first bytes, in hexadecimal */
  readonly write: (path: string, as: Caller, lengthBytes: number, seed: string, head?: string) => Promise<Attempt>
  /** Takes room for a file without writing it. @returns why it was refused; undefined where it was not */
  readonly reserve: (path: string, as: Caller, bytes: bigint) => Promise<string | undefined>
  /** Reads a file, or a part of it. */
  readonly read: (path: string, as: Caller, part?: FilePart) => Promise<Attempt>
  /** A page of all files below a mounted share or a directory of it, in an order of its own, behind the last of the page before. */
  readonly list: (path: string, as: Caller, after: string) => Promise<ListedPage | { readonly refused: string }>
  readonly remove: (path: string, as: Caller) => Promise<void>
}

/** A host, through its own agent: the only way to prove that storage is what its user would find. */
export interface Host {
  readonly identity: () => Promise<HostIdentity>
  readonly login: (target: string) => Promise<void>
  /** By what it proves itself where it logs in from then on, and by what its systems must; null for nothing. */
  readonly setSignIn: (secrets: SignInSecrets | null) => Promise<void>
  /** Tries to log in, and leaves all as it is. @returns why it was not let in; undefined where it was */
  readonly tryLogin: (target: string, secrets: SignInSecrets | null) => Promise<string | undefined>
  /** What it has found at its last scan, without looking anew. */
  readonly devices: () => Promise<readonly HostDevice[]>
  readonly rescan: () => Promise<readonly HostDevice[]>
  /** Writes bytes that follow from a seed; @returns their SHA-256 as the host computed it before sending */
  readonly write: (naa: string, offsetBytes: bigint, lengthBytes: number, seed: string) => Promise<string>
  /** @returns the SHA-256 of what is stored */
  readonly read: (naa: string, offsetBytes: bigint, lengthBytes: number) => Promise<string>
  /** Reads blocks of a size from places all over a disk, as fast as it can and for so long. @returns how many it got, and in which time */
  readonly readFast: (
    naa: string,
    seconds: number,
    bytesEach: number,
  ) => Promise<{ readonly requests: number; readonly seconds: number }>
  /** What stands on the disks that it sees. */
  readonly fileSystems: () => Promise<readonly HostFileSystem[]>
  /** Makes a file system; refused where one stands there already. */
  readonly format: (naa: string, fileSystem: FileSystem, label: string) => Promise<void>
  /** Mounts it now and at every start; safe to repeat. One to be read only is mounted now only, also beside the one that it is a copy of. */
  readonly mount: (naa: string, path: string, isReadOnly?: boolean) => Promise<void>
  /** Unmounts it, and forgets that it was to be mounted at every start; safe to repeat. */
  readonly unmount: (path: string) => Promise<void>
  /** Makes a file system as large as its disk. @returns its size now */
  readonly grow: (path: string) => Promise<bigint>
  /** Writes a file whose bytes follow from a seed; @returns the SHA-256 of what was sent */
  readonly writeFile: (path: string, lengthBytes: number, seed: string) => Promise<string>
  /** @returns the SHA-256 of what the file holds; undefined where there is none */
  readonly readFile: (path: string) => Promise<string | undefined>
  /** Copies a file; what stands at the new place is never written over. @returns the SHA-256 of what was copied */
  readonly copyFile: (from: string, to: string) => Promise<string>
  readonly removeFile: (path: string) => Promise<void>
  readonly shares: HostShares
  readonly network: HostNetwork
  /** Restarts it. @returns when it has begun to */
  readonly reboot: () => Promise<void>
  /** Of this start of it: another one after each restart. */
  readonly bootId: () => Promise<string>
  readonly discard: (naa: string, offsetBytes: bigint, lengthBytes: number) => Promise<void>
}
