'use client'
import { usePathname, useSearchParams } from 'next/navigation'

/** The page's address with some of its query changed; null takes a word out of it. */
export function useAddress() {
  const path = usePathname()
  const query = useSearchParams()
  const withChanges = (changes: Readonly<Record<string, string | null>>) => {
    const next = new URLSearchParams(query)
    for (const [name, value] of Object.entries(changes)) {
      if (value === null || value === '') next.delete(name)
      else next.set(name, value)
    }
    return `${path}${next.size === 0 ? '' : `?${next}`}`
  }
  return { query, withChanges }
}
