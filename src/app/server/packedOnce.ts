import { cache } from 'react'
import { packed } from '@/core/views'

/** Packs rows once for a request: what several parts of a page are given is sent once. */
export const packedOnce = cache(packed) as typeof packed
