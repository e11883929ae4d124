'use client'
import { useRouter } from 'next/navigation'
import { useAddress } from '../../table'
import { Select } from '../../parts/Select'

const states = [
  { value: '', words: 'every state' },
  { value: 'in use', words: 'in use' },
  { value: 'holding', words: 'holding' },
]

/** Filters the list by pool and by state; the address keeps it. */
export function VolumeFilter({ pools }: { readonly pools: readonly { readonly id: string; readonly name: string }[] }) {
  const router = useRouter()
  const { query, withChanges } = useAddress()
  const put = (name: string, value: string) => router.replace(withChanges({ [name]: value }), { scroll: false })
  return (
    <>
      <Select
        aria-label="Pool"
        className="w-[150px]"
        value={query.get('poolId') ?? ''}
        options={[{ value: '', words: 'every pool' }, ...pools.map(({ id, name }) => ({ value: id, words: name }))]}
        onChange={value => put('poolId', value)}
      />
      <Select
        aria-label="State"
        className="w-[120px]"
        value={query.get('state') ?? ''}
        options={states}
        onChange={value => put('state', value)}
      />
    </>
  )
}
