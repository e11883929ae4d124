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
  const found = useFound(
    typed.trim(),
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
        <Chosen label={label} name={chosen} giveUp={() => choose(undefined)} />
      )}
      {typed.trim() !== '' && <Hits label={label} found={found} choose={choose} />}
    </div>
  )
}

/** Who fits what is typed; undefined until the first answer. */
function useFound(typed: string, mayBe: (somebody: Principal) => boolean): readonly Principal[] | undefined {
  const { data } = useQuery({
    queryKey: ['people', typed],
    enabled: typed !== '',
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const query = new URLSearchParams({ filter: typed, limit: '40' })
      const answer = await ask<{ items: readonly Principal[] }>('GET', `/principals?${query}`, undefined, signal)
      return answer.ok ? answer.value.items : []
    },
  })
  return data?.filter(mayBe)
}

interface ChosenProps {
  readonly label: string
  readonly name: string
  readonly giveUp: () => void
}

const Chosen = ({ label, name, giveUp }: ChosenProps) => (
  <div className="mb-3">
    <span className="label">{label}</span>
    <span className="flex items-center gap-2">
      <b>{name}</b>
      <button
        type="button"
        className="border-0 bg-transparent p-0 text-second"
        aria-label={`Not as ${name}`}
        onClick={giveUp}
      >
        <X aria-hidden size={14} />
      </button>
    </span>
  </div>
)

interface HitsProps {
  readonly label: string
  readonly found: readonly Principal[] | undefined
  readonly choose: (somebody: Principal) => void
}

const Hits = ({ label, found, choose }: HitsProps) => (
  <ul className="m-0 list-none border border-rule-fine p-0" aria-label={`Found for ${label}`}>
    {found?.slice(0, shownHits).map(each => (
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
    {found?.length === 0 && <li className="px-2 py-[5px] text-second">No directory has anybody by that name.</li>}
    {found !== undefined && found.length > shownHits && (
      <li className="px-2 py-[5px] text-sm text-second">and more: type more of the name</li>
    )}
  </ul>
)
