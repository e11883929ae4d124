'use client'
import { useRouter } from 'next/navigation'
import { useAddress } from '../../table'
import { Select } from '../../parts/Select'

const states = [
  { value: '', words: 'every state' },
  { value: 'in use', words: 'in use' },
  { value: 'holding', words: 'holding' },
]

export interface Named {
  readonly id: string
  readonly name: string
}

const among = (every: string, all: readonly Named[]) => [
  { value: '', words: every },
  ...all.map(({ id, name }) => ({ value: id, words: name })),
]

/** Filters the list by pool, class and state; the address keeps it. */
export function VolumeFilter({
  pools,
  classes,
}: {
  readonly pools: readonly Named[]
  readonly classes: readonly Named[]
}) {
  const router = useRouter()
  const { query, withChanges } = useAddress()
  const put = (name: string, value: string) => router.replace(withChanges({ [name]: value }), { scroll: false })
  return (
    <>
      <Select
        aria-label="Pool"
        className="w-[112px]"
        value={query.get('poolId') ?? ''}
        options={among('every pool', pools)}
        onChange={value => put('poolId', value)}
      />
      {classes.length > 0 && (
        <Select
          aria-label="Service class"
          className="w-[112px]"
          value={query.get('classId') ?? ''}
          options={among('every class', classes)}
          onChange={value => put('classId', value)}
        />
      )}
      <Select
        aria-label="State"
        className="w-[102px]"
        value={query.get('state') ?? ''}
        options={states}
        onChange={value => put('state', value)}
      />
    </>
  )
}
