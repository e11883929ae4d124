'use client'
import { usePathname, useRouter, useSearchParams } from 'next/navigation'
import { useEffect, useState } from 'react'

/** Filters the list by name or WWN and by state; the address keeps it. */
export function VolumeFilter({
  poolNames,
}: {
  readonly poolNames: readonly { readonly id: string; readonly name: string }[]
}) {
  const router = useRouter()
  const path = usePathname()
  const query = useSearchParams()
  const [text, setText] = useState(query.get('filter') ?? '')
  const put = (name: string, value: string) => {
    const next = new URLSearchParams(window.location.search)
    if (value === '') next.delete(name)
    else next.set(name, value)
    router.replace(`${path}?${next}`, { scroll: false })
  }
  useEffect(() => {
    if (text === (new URLSearchParams(window.location.search).get('filter') ?? '')) return
    const timer = setTimeout(() => put('filter', text), 180)
    return () => clearTimeout(timer)
  })
  return (
    <div className="no-print mb-2 flex flex-wrap items-center gap-2">
      <input
        aria-label="Filter by name or WWN"
        className="field w-[220px]"
        placeholder="Filter by name or WWN"
        value={text}
        onChange={event => setText(event.target.value)}
        maxLength={120}
        spellCheck={false}
      />
      <select
        aria-label="Pool"
        className="field w-[190px]"
        value={query.get('poolId') ?? ''}
        onChange={event => put('poolId', event.target.value)}
      >
        <option value="">every pool</option>
        {poolNames.map(pool => (
          <option key={pool.id} value={pool.id}>
            {pool.name}
          </option>
        ))}
      </select>
      <select
        aria-label="State"
        className="field w-[120px]"
        value={query.get('state') ?? ''}
        onChange={event => put('state', event.target.value)}
      >
        <option value="">every state</option>
        <option value="in use">in use</option>
        <option value="holding">holding</option>
      </select>
    </div>
  )
}
