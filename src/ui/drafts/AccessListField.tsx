'use client'
import { Plus } from 'lucide-react'
import { isWho, readWho, unreached, type AccessEntry } from '@/core/access'
import { Tick } from '../parts/Checkbox'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'
import { LineActs, raised } from './LineActs'

interface AccessListFieldProps {
  readonly label: string
  readonly value: readonly AccessEntry[]
  readonly error: string | undefined
  readonly onChange: (acl: readonly AccessEntry[]) => void
}

const newEntry: AccessEntry = { kind: 'allow', who: 'OWNER@', may: 'both' }

/** Entries in the order in which they count, each with what is wrong with it as it is typed; without any the mode counts. */
export function AccessListField({ label, value: acl, error, onChange }: AccessListFieldProps) {
  const never = new Set(unreached(acl))
  const set = (index: number, change: Partial<AccessEntry>) =>
    onChange(acl.map((entry, at) => (at === index ? { ...entry, ...change } : entry)))
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      {acl.length === 0 && <p className="mt-0 mb-1 text-sm text-second">None: the mode counts.</p>}
      <ol className="m-0 list-none p-0">
        {acl.map((entry, index) => (
          <EntryLine
            key={index}
            number={index + 1}
            entry={entry}
            isNever={never.has(index)}
            set={change => set(index, change)}
            remove={() => onChange(acl.toSpliced(index, 1))}
            raise={index === 0 ? undefined : () => onChange(raised(acl, index))}
          />
        ))}
      </ol>
      <button type="button" className="button quiet" onClick={() => onChange([...acl, newEntry])}>
        <Plus aria-hidden size={13} /> Add an entry
      </button>
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

const kinds = [
  { value: 'allow', words: 'may' },
  { value: 'deny', words: 'may not' },
] as const
const mays = [
  { value: 'both', words: 'read, write' },
  { value: 'read', words: 'read' },
  { value: 'write', words: 'write' },
] as const
const whos = [
  { value: 'OWNER@', words: 'the owner' },
  { value: 'GROUP@', words: 'the group' },
  { value: 'EVERYONE@', words: 'everyone' },
  { value: 'uid', words: 'uid …' },
  { value: 'gid', words: 'gid …' },
] as const

interface EntryLineProps {
  readonly number: number
  readonly entry: AccessEntry
  readonly isNever: boolean
  readonly set: (change: Partial<AccessEntry>) => void
  readonly remove: () => void
  readonly raise: (() => void) | undefined
}

function EntryLine({ number, entry, isNever, set, remove, raise }: EntryLineProps) {
  const sort = entry.who.includes(':') ? entry.who.slice(0, 3) : entry.who
  return (
    <li className="mb-2 border-b border-rule-fine pb-2">
      <div className="flex items-center gap-2">
        <span className="mono w-4 text-right text-second">{number}</span>
        <div className="grid min-w-0 flex-1 grid-cols-3 gap-[6px]">
          <Select
            aria-label={`Whom entry ${number} is for`}
            value={sort}
            options={whos as readonly { readonly value: string; readonly words: string }[]}
            onChange={who => set({ who: who === 'uid' || who === 'gid' ? `${who}:` : who })}
          />
          <Select
            aria-label={`What entry ${number} does`}
            value={entry.kind}
            options={kinds}
            onChange={kind => set({ kind })}
          />
          <Select
            aria-label={`What entry ${number} is about`}
            value={entry.may}
            options={mays}
            onChange={may => set({ may })}
          />
        </div>
        <LineActs line={`entry ${number}`} remove={remove} raise={raise} />
      </div>
      <Named number={number} entry={entry} sort={sort} set={set} />
      <div className="mt-1 pl-6">
        <Tick isOn={entry.isInherited === true} onChange={isInherited => set({ isInherited })}>
          also for what is made in it<span className="sr-only">, entry {number}</span>
        </Tick>
      </div>
      {isNever && (
        <div className="mt-1 pl-6">
          <Trouble>It decides for nobody: entries before it are for all of that.</Trouble>
        </div>
      )}
    </li>
  )
}

/** The number of whom an entry is for, where it is for one. */
function Named({
  number,
  entry: { who },
  sort,
  set,
}: Pick<EntryLineProps, 'number' | 'entry' | 'set'> & { readonly sort: string }) {
  if (sort !== 'uid' && sort !== 'gid') return null
  return (
    <div className="mt-1 pl-6">
      <input
        className="field mono w-[140px]"
        aria-label={`${sort} of entry ${number}`}
        aria-invalid={!isWho(who)}
        inputMode="numeric"
        placeholder={`a ${sort}`}
        value={who.slice(4)}
        maxLength={10}
        autoComplete="off"
        onChange={event => set({ who: `${sort}:${event.target.value.trim()}` })}
      />
      {readWho(who) === undefined && <Trouble>{`Give a ${sort}: a whole number up to 4,294,967,294.`}</Trouble>}
    </div>
  )
}
