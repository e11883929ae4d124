import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { X } from 'lucide-react'
import { useState } from 'react'
import type { Principal } from '@/core/estate'
import { ask } from '../api'
import { TextField } from '../parts/TextField'

interface PersonChoiceProps {
  readonly label: string
  readonly hint?: string
  readonly error?: string | undefined
  /** Who is chosen, by name; empty while nobody is. */
  readonly chosen: string
  /** Whether groups can be chosen too. */
  readonly hasGroups?: boolean
  /** Only these; both where it is left out and groups can be chosen. */
  readonly sort?: Principal['sort']
  readonly onChoose: (somebody: Principal | undefined) => void
}

const shownHits = 6

/** Somebody of a directory, found by typing a part of the name or the account. */
export function PersonChoice({ label, hint, error, chosen, hasGroups = false, sort, onChoose }: PersonChoiceProps) {
  const [typed, setTyped] = useState('')
  const { data: hits } = useQuery({
    queryKey: ['people', typed.trim()],
    enabled: typed.trim() !== '',
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const query = new URLSearchParams({ filter: typed.trim(), limit: '40' })
      const answer = await ask<{ items: readonly Principal[] }>('GET', `/principals?${query}`, undefined, signal)
      return answer.ok ? answer.value.items : []
    },
  })
  const found = (hits ?? []).filter(
    each => each.goneSince === null && (sort === undefined ? hasGroups || each.sort === 'person' : each.sort === sort),
  )
  const choose = (somebody: Principal | undefined) => {
    setTyped('')
    onChoose(somebody)
  }
  return (
    <div className="relative mb-2">
      {chosen === '' ? (
        <TextField label={label} hint={hint} error={error} value={typed} maxLength={120} onChange={setTyped} />
      ) : (
        <div className="mb-3">
          <span className="label">{label}</span>
          <span className="flex items-center gap-2">
            <b>{chosen}</b>
            <button
              type="button"
              className="border-0 bg-transparent p-0 text-second"
              aria-label={`Not as ${chosen}`}
              onClick={() => choose(undefined)}
            >
              <X aria-hidden size={14} />
            </button>
          </span>
        </div>
      )}
      {typed.trim() !== '' && (
        <ul className="m-0 list-none border border-rule-fine p-0" aria-label={`Found for ${label}`}>
          {found.slice(0, shownHits).map(each => (
            <li key={each.id}>
              <button
                type="button"
                className="flex w-full items-baseline gap-2 border-0 bg-transparent px-2 py-[5px] text-left hover:bg-paper"
                onClick={() => choose(each)}
              >
                <b>{each.name}</b>
                <span className="mono text-second">{each.sort === 'group' ? 'group' : each.account}</span>
              </button>
            </li>
          ))}
          {hits !== undefined && found.length === 0 && (
            <li className="px-2 py-[5px] text-second">No directory has anybody by that name.</li>
          )}
          {found.length > shownHits && (
            <li className="px-2 py-[5px] text-sm text-second">and more: type more of the name</li>
          )}
        </ul>
      )}
    </div>
  )
}
