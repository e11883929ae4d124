'use client'
import { usePathname, useRouter } from 'next/navigation'
import { useEffect, useRef } from 'react'
import { ask, isPassing } from '../api'
import { pageNonce } from '../parts/pageNonce'
import { concerns } from './concerns'

const settleMilliseconds = 350
const mostMilliseconds = 1500
const againMilliseconds = 2500
/** When a system was last read is no news; a page that is looked at asks for it once in a while. */
const agedMilliseconds = 60_000

/** Reads the page's records anew when the server tells that something has changed that it shows; bursts are waited out, but not for long. */
export function Live() {
  const router = useRouter()
  const path = usePathname()
  const shown = useRef(path)
  useEffect(() => {
    shown.current = path
  }, [path])
  useEffect(() => {
    // Where what locks the page behind a dialog looks for it.
    Object.assign(globalThis, { __webpack_nonce__: pageNonce() })
  }, [])
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let firstAt = 0
    const source = new EventSource('/api/v1/events')
    /** A page that cannot be read would replace the one that is open, and what is typed in it: so it is asked first whether the records answer. */
    const refresh = async () => {
      const answer = await ask('GET', '/settings')
      if (answer.ok) {
        timer = undefined
        router.refresh()
      } else if (isPassing(answer.refusal)) {
        timer = setTimeout(() => void refresh(), againMilliseconds)
      }
    }
    source.onmessage = ({ data }: MessageEvent<string>) => {
      if (!concerns(shown.current, data)) return
      const now = Date.now()
      if (timer === undefined) firstAt = now
      clearTimeout(timer)
      const wait = Math.min(settleMilliseconds, Math.max(0, firstAt + mostMilliseconds - now))
      timer = setTimeout(() => void refresh(), wait)
    }
    const aged = setInterval(() => {
      if (document.visibilityState === 'visible' && timer === undefined) void refresh()
    }, agedMilliseconds)
    return () => {
      clearInterval(aged)
      clearTimeout(timer)
      source.close()
    }
  }, [router])
  return null
}
