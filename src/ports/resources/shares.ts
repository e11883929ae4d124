import type { Share } from '@/core/estate'

/** What decides who may do what with a share. */
export type ShareRightsWanted = Pick<Share, 'ownerUid' | 'ownerGid' | 'mode' | 'acl' | 'rules' | 'grants'>

/** What may be written to a share, and of what kind. */
export type ShareLimitsWanted = Pick<Share, 'quotas' | 'fileRules'>

export interface ShareWanted extends ShareRightsWanted {
  readonly name: string
  readonly path: string
  readonly protocols: Share['protocols']
  readonly fileServiceLocator: string
}

export interface ShareSeen extends ShareWanted, ShareLimitsWanted {
  readonly quotaUsage: Share['quotaUsage']
  readonly serviceGrants: Share['serviceGrants']
  readonly snapshotDirectory: Share['snapshotDirectory']
  readonly locator: string
  readonly volumeLocator: string
}

/** File systems on volumes, and what of them hosts may mount. */
export interface Shares {
  /** The file system that was made under a key. @returns its locator */
  readonly fileSystemByKey: (key: string) => Promise<string | undefined>
  /** Makes a file system on a volume that no host sees. @returns its locator */
  readonly makeFileSystem: (volumeLocator: string, name: string, key: string) => Promise<string>
  /** The file system stays for as long as it is shared; one that is gone already is removed. @throws {OtherObject} */
  readonly removeFileSystem: (locator: string, expectedName: string) => Promise<void>
  /** The share that was made under a key. @returns its locator */
  readonly byKey: (fileSystemLocator: string, key: string) => Promise<string | undefined>
  /** @returns its locator */
  readonly make: (fileSystemLocator: string, wanted: ShareWanted, key: string) => Promise<string>
  readonly at: (locator: string) => Promise<ShareSeen | undefined>
  /** @throws {OtherObject} where another share stands there than the one that is expected */
  readonly setRights: (locator: string, expectedName: string, rights: ShareRightsWanted) => Promise<void>
  /** @throws {OtherObject} where another share stands there than the one that is expected */
  readonly setLimits: (locator: string, expectedName: string, limits: ShareLimitsWanted) => Promise<void>
  /**
   * Whether hosts find snapshots of its volume within it.
   * @throws {OtherObject} where another share stands there than the one that is expected
   * @throws {NotOffered} where its maker has no such directory
   */
  readonly showSnapshots: (locator: string, expectedName: string, isShown: boolean) => Promise<void>
  /** Its files stay. One that is gone already is removed. @throws {OtherObject} */
  readonly remove: (locator: string, expectedName: string) => Promise<void>
}
