import type { PromiseKept } from '../classes'

/** A row of the list of volumes; bytes as decimal text, since a page of rows goes to the browser as JSON. */
export interface VolumeLine {
  readonly id: string
  readonly name: string
  readonly naa: string
  readonly systemName: string
  readonly poolName: string
  readonly sizeBytes: string
  readonly writtenBytes: string
  readonly isThin: boolean
  readonly state: 'in use' | 'holding'
  /** The service class that it stands under; null for none. */
  readonly className: string | null
  /** How its worst promise is kept; null where nothing is promised of it. */
  readonly promises: PromiseKept['state'] | null
  /** What it serves; null where nobody has said. */
  readonly application: string | null
  readonly isImage: boolean
  /** It is the far end of a mirror, and follows a volume of another system. */
  readonly follows: boolean
  /** What has been written of it more than a week ago, carried to a week exactly; null where it is not known for so long. */
  readonly growthBytes: number | null
  readonly groupNames: readonly string[]
  /** Shares whose files it carries. */
  readonly shareNames: readonly string[]
  /** Since when its system does not state it any more; null while it does. */
  readonly missingSince: string | null
}

export const volumeSorts = ['name', 'size', 'written'] as const
export type VolumeSort = (typeof volumeSorts)[number]
