'use client'
import { useRouter } from 'next/navigation'
import { useAddress } from '../table'

/** Filters the list by pool and by state; the address keeps it. */
export function VolumeFilter({ pools }: { readonly pools: readonly { readonly id: string; readonly name: string }[] }) {
  const router = useRouter()
  const { query, withChanges } = useAddress()
  const put = (name: string, value: string) => router.replace(withChanges({ [name]: value }), { scroll: false })
  return (
    <>
      <select
        aria-label="Pool"
        className="field w-[190px]"
        value={query.get('poolId') ?? ''}
        onChange={event => put('poolId', event.target.value)}
      >
        <option value="">every pool</option>
        {pools.map(pool => (
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
    </>
  )
}
