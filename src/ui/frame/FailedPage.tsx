'use client'
import { useEffect } from 'react'
import { ask } from '../api'

const againMilliseconds = 1500
const mostMilliseconds = 60_000
const key = 'failed page'

/** How often in a row a page failed though the records answered: one that fails for another reason is not asked for without end. */
function countFailure(): number {
  const [count = 0, at = 0] = (sessionStorage.getItem(key) ?? '').split(' ').map(Number)
  const inARow = Date.now() - at < 2 * mostMilliseconds ? count : 0
  sessionStorage.setItem(key, `${inARow + 1} ${Date.now()}`)
  return inARow
}

/**
 * What is shown when a page cannot be read: mostly that the database is away. It is read again by itself as soon as the records answer.
 * @param readAgain reads the page anew; the whole document unless told otherwise
 */
export function FailedPage({ readAgain = () => window.location.reload() }: { readonly readAgain?: () => void }) {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let wasAway = false
    const look = async () => {
      const answer = await ask('GET', '/settings')
      // A refusal is an answer too: somebody who is not signed in any more is led to where one signs in.
      const isBack = answer.ok || (answer.refusal.code !== 'records.away' && answer.refusal.code !== 'ui.unreachable')
      if (!isBack) {
        wasAway = true
        timer = setTimeout(() => void look(), againMilliseconds)
        return
      }
      const wait = wasAway ? 0 : Math.min(againMilliseconds * 2 ** countFailure(), mostMilliseconds)
      timer = setTimeout(readAgain, wait)
    }
    timer = setTimeout(() => void look(), againMilliseconds)
    return () => clearTimeout(timer)
  }, [readAgain])
  return (
    <main className="p-8">
      <h1>This page could not be read</h1>
      <p className="sentence" role="status">
        The records did not answer. Nothing is lost, and what runs goes on; the page is read again as soon as they are
        back.
      </p>
      <button type="button" className="button" onClick={readAgain}>
        Read it again
      </button>
    </main>
  )
}
