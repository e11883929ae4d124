'use client'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { useAddress } from './useAddress'

const settleMilliseconds = 180

/** Filters a list at the server by a text, which the address keeps. @param words what it looks in */
export function FilterField({ words }: { readonly words: string }) {
  const router = useRouter()
  const { query, withChanges } = useAddress()
  const kept = query.get('filter') ?? ''
  const [text, setText] = useState(kept)
  useEffect(() => {
    if (text === kept) return
    const timer = setTimeout(() => router.replace(withChanges({ filter: text }), { scroll: false }), settleMilliseconds)
    return () => clearTimeout(timer)
  })
  return (
    <input
      aria-label={words}
      className="field w-[220px]"
      placeholder={words}
      value={text}
      onChange={event => setText(event.target.value)}
      maxLength={120}
      spellCheck={false}
    />
  )
}
