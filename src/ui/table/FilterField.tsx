'use client'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { useAddress } from './useAddress'

const settleMilliseconds = 180

/**
 * Filters a list at the server by a text, which the address keeps. Once the field is left, the address says what stands in it: what was
 * typed last must not come after a link that was followed meanwhile, and lead back from it.
 * @param words what it looks in
 */
export function FilterField({ words }: { readonly words: string }) {
  const router = useRouter()
  const { query, withChanges } = useAddress()
  const address = query.toString()
  const kept = query.get('filter') ?? ''
  const [text, setText] = useState(kept)
  const [isHere, setHere] = useState(false)
  const [seen, setSeen] = useState(address)
  if (seen !== address) {
    setSeen(address)
    if (!isHere) setText(kept)
  }
  const filter = () => router.replace(withChanges({ filter: text }), { scroll: false })
  useEffect(() => {
    if (!isHere || text === kept) return
    const timer = setTimeout(filter, settleMilliseconds)
    return () => clearTimeout(timer)
  })
  return (
    <input
      aria-label={words}
      className="field w-[160px]"
      placeholder={words}
      value={text}
      onFocus={() => setHere(true)}
      onBlur={() => {
        setHere(false)
        if (text !== kept) filter()
      }}
      onChange={event => setText(event.target.value)}
      maxLength={120}
      spellCheck={false}
    />
  )
}
