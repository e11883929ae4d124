/** A service by which hosts reach files: one address on each of the units on which it stands. */
export interface FileServiceEntity {
  readonly id: string
  /** The name by which hosts reach it. */
  readonly name: string
  readonly description: string
  readonly nameServers: readonly string[]
  readonly searchSuffixes: readonly string[]
  readonly instances: readonly { readonly unit: string; readonly address: string; readonly prefixLength: number }[]
  /** The task that starts them, one after another. */
  readonly taskId: string
  /** The base of the directory to which it belongs. */
  readonly joinedTo?: string
  /** For all of its shares over SMB. */
  readonly grants?: readonly ShareGrantEntity[]
}

/** What a file server wants of a directory. */
export interface ReachedDirectory {
  readonly address: string
  readonly tree: {
    /** @returns why not */
    join(dn: string, password: string, server: string): string | undefined
    leave(server: string): void
    computerDn(server: string): string
  }
}

/** Who may do what over SMB: an account or a group by its entryUUID, or `*`. */
export interface ShareGrantEntity {
  readonly who: string
  readonly name: string
  readonly right: 'none' | 'read' | 'change' | 'full'
}

/** A file system on a volume of the array's own. */
export interface FileSystemEntity {
  readonly id: string
  readonly name: string
  readonly description: string
  readonly volumeId: string
}

export interface ExportRuleEntity {
  readonly client: string
  readonly access: 'rw' | 'ro' | 'none'
  readonly squash: 'none' | 'root' | 'all'
  readonly anonUid: number
  readonly anonGid: number
  readonly flavours: readonly string[]
}

/** A file system as hosts may mount it. */
export interface FileShareEntity {
  readonly id: string
  readonly fileSystemId: string
  readonly fileServiceId: string
  readonly name: string
  readonly description: string
  readonly path: string
  readonly protocols: readonly string[]
  readonly rules: readonly ExportRuleEntity[]
  readonly grants?: readonly ShareGrantEntity[]
  /** Absent for a share of which nobody has limited anything. */
  readonly limits?: ShareLimitsEntity
  /** Whether hosts find snapshots of its volume within it; absent where nobody has said so. */
  readonly showsSnapshots?: boolean
}

export interface ShareLimitsEntity {
  readonly quotas: readonly {
    readonly path: string
    readonly of: 'tree' | 'each directory' | 'user' | 'group' | 'project'
    readonly id: number | null
    readonly softBytes: string | null
    readonly hardBytes: string | null
    readonly graceDays: number
    /** Trees that are counted together; absent but for a project. */
    readonly project?: { readonly name: string; readonly alsoAt: readonly string[] }
  }[]
  readonly fileRules: readonly {
    readonly pattern: string
    readonly content: 'any' | 'audio' | 'video' | 'picture' | 'archive' | 'program' | 'document'
    readonly verdict: 'deny' | 'report'
  }[]
  /** Since when what a quota counts together stands above its soft limit (fleet milliseconds). */
  readonly overSoft: Readonly<Record<string, number>>
}
