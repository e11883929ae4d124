import type { Right } from '@/app/server/rights'

/** How long a body may be where its operation says nothing else (bytes). */
export const defaultBodyBytes = 256 * 1024

/** What each operation of the API takes and answers: the one source of its checks and of the OpenAPI document. */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete'
  readonly path: string
  readonly summary: string
  readonly body?: object
  readonly query?: Readonly<Record<string, object>>
  readonly requiredQuery?: readonly string[]
  /** How long a body may be where 256 KiB are too few. */
  readonly bodyBytes?: number
  /** What right it takes, where that is not reading for `get` and changing for the others. */
  readonly right?: Right
  readonly answers?: object
  readonly status?: number
  /** Asked without signing in. */
  readonly isOpen?: true
}

/** How long the body of a draft may be: one of a large estate names thousands of drives. */
export const draftBytes = 2_500_000
