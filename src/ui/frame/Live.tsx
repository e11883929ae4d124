'use client'
import { useRouter } from 'next/navigation'
import { useEffect } from 'react'

const settleMilliseconds = 350
const mostMilliseconds = 1500

/** Reads the page's records anew when the server tells that something has changed; bursts are waited out, but not for long. */
export function Live() {
  const router = useRouter()
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let firstAt = 0
    const source = new EventSource('/api/v1/events')
    source.onmessage = () => {
      const now = Date.now()
      if (timer === undefined) firstAt = now
      clearTimeout(timer)
      const wait = Math.min(settleMilliseconds, Math.max(0, firstAt + mostMilliseconds - now))
      timer = setTimeout(() => {
        timer = undefined
        router.refresh()
      }, wait)
    }
    return () => {
      clearTimeout(timer)
      source.close()
    }
  }, [router])
  return null
}
