'use client'
import { usePathname, useRouter } from 'next/navigation'
import { useState } from 'react'

/**
 * What is chosen, where the address is all of it. The address is behind by as long as the server takes: what is chosen next rests on what
 * was chosen last, not on what has come back of it.
 * @param inAddress what the server has answered
 * @param queryOf the same choice has the same query
 * @param way whether going back leads to the choice before
 */
export function useChoice<T>(inAddress: T, queryOf: (choice: T) => string, way: 'push' | 'replace') {
  const router = useRouter()
  const path = usePathname()
  const seen = queryOf(inAddress)
  const [state, setState] = useState({ choice: inAddress, sent: [] as readonly string[], seen })
  if (state.seen !== seen) {
    // What has come by a link or by going back, and not of our own, is another choice.
    const choice = state.sent.includes(seen) ? state.choice : inAddress
    setState({ choice, sent: seen === queryOf(choice) ? [] : state.sent, seen })
  }
  const choose = (next: (now: T) => T) => {
    const choice = next(state.choice)
    setState({ ...state, choice, sent: [...state.sent, queryOf(choice)] })
    router[way](`${path}?${queryOf(choice)}`, { scroll: false })
  }
  return { choice: state.choice, choose }
}
