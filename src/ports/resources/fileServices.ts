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
  /** The task that starts it, while or after it runs. */
  readonly task: string | null
}

/** Services by which hosts reach files. */
export interface FileServices {
  readonly byKey: (key: string) => Promise<Made | undefined>
  readonly make: (wanted: FileServiceWanted, key: string) => Promise<Made>
  readonly at: (locator: string) => Promise<FileServiceSeen | undefined>
  /** One that is gone already is removed. @throws {OtherObject} where another stands there than the one that is expected */
  readonly remove: (locator: string, expectedName: string) => Promise<void>
}
