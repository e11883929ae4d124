import type { ShareGrant } from '@/core/access'
import type { FileService } from '@/core/estate'
import type { Made } from '../Made'

type Instance = FileService['instances'][number]

export interface FileServiceWanted {
  readonly name: string
  readonly nameServers: readonly string[]
  readonly searchSuffixes: readonly string[]
  readonly instances: readonly Omit<Instance, 'standsOn'>[]
}

export interface FileServiceSeen {
  readonly locator: string
  readonly name: string
  readonly instances: readonly Instance[]
  readonly joinedTo: string | null
  readonly joinedAs: string | null
  /** The task that starts it, while or after it runs. */
  readonly task: string | null
}

/** A directory, and an account that may take computers into it. */
export interface DirectoryJoined {
  readonly address: string
  readonly baseDn: string
  readonly userName: string
  readonly password: string
}

/** Services by which hosts reach files. */
export interface FileServices {
  readonly byKey: (key: string) => Promise<Made | undefined>
  readonly make: (wanted: FileServiceWanted, key: string) => Promise<Made>
  readonly at: (locator: string) => Promise<FileServiceSeen | undefined>
  /** Takes it into a directory by an account that may do so, of which it keeps nothing. @throws {OtherObject} */
  readonly join: (locator: string, expectedName: string, into: DirectoryJoined) => Promise<void>
  /** Takes it out of its directory; safe to repeat. @throws {OtherObject} */
  readonly leave: (locator: string, expectedName: string) => Promise<void>
  /** Sets who may use any of its shares over SMB, besides those whom each share lets. @throws {OtherObject} */
  readonly setGrants: (locator: string, expectedName: string, grants: readonly ShareGrant[]) => Promise<void>
  /** One that is gone already is removed. @throws {OtherObject} where another stands there than the one that is expected */
  readonly remove: (locator: string, expectedName: string) => Promise<void>
}
