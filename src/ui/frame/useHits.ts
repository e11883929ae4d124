import { useEffect, useState } from 'react'
import type { Hit } from '@/core/views'
import { ask } from '../api'

const settleMilliseconds = 120

/** What the estate has of that name, serial number or WWN, a moment after the last key. */
export function useHits(text: string): readonly Hit[] {
  const [hits, setHits] = useState<readonly Hit[]>([])
  useEffect(() => {
    const stop = new AbortController()
    const timer = setTimeout(async () => {
      if (text.trim().length < 2) return setHits([])
      const path = `/search?text=${encodeURIComponent(text)}`
      const found = await ask<{ items: Hit[] }>('GET', path, undefined, stop.signal)
      if (found.ok && !stop.signal.aborted) setHits(found.value.items)
    }, settleMilliseconds)
    return () => {
      clearTimeout(timer)
      stop.abort()
    }
  }, [text])
  return hits
}
