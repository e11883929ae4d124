import type { FileReport, ListedFile, Sum } from '../filetree'
import type { FileService, Share } from '../estate'

/** Files that hold the same: of one size, and of one sum. */
export interface TwinFiles {
  /** Of all of it; of files that are read in parts, of the first: the others are alike too. */
  readonly sha256: string
  readonly bytes: number
  readonly paths: readonly string[]
}

/** What a walk through the files of a share has found. */
export interface FileScan {
  readonly id: string
  readonly at: string
  readonly hostName: string
  /** As whom the host has looked. */
  readonly seenAs: string
  readonly report: FileReport
  readonly twins: readonly TwinFiles[]
}

/** The page of a share's files: the latest walk, the one before it, and the files of a part that was opened. */
export interface FilesPage {
  readonly share: Share
  readonly service: FileService
  readonly scan: FileScan | null
  readonly before: FileScan | null
  /** Names of owners that a directory knows, by uid. */
  readonly owners: Readonly<Record<string, string>>
  readonly slice: Sum & { readonly text: string; readonly largest: readonly ListedFile[] }
}
