'use client'
import { Plus, X } from 'lucide-react'
import type { ReactNode } from 'react'
import { Trouble } from '../parts/State'

export interface ListFieldProps<Item> {
  readonly label: string
  readonly value: readonly Item[]
  readonly error: string | undefined
  readonly onChange: (value: readonly Item[]) => void
}

export interface LineProps<Item> {
  readonly item: Item
  readonly number: number
  readonly set: (change: Partial<Item>) => void
  readonly remove: () => void
}

interface ListOfLinesProps<Item> extends ListFieldProps<Item> {
  readonly fresh: Item
  readonly addWords: string
  readonly Line: (props: LineProps<Item>) => ReactNode
}

/** Some of a kind, one below another, each of which can be altered and taken away. */
export function ListField<Item>({ label, value, error, onChange, fresh, addWords, Line }: ListOfLinesProps<Item>) {
  const set = (index: number, change: Partial<Item>) =>
    onChange(value.map((each, at) => (at === index ? { ...each, ...change } : each)))
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      <ol className="m-0 list-none p-0">
        {value.map((item, index) => (
          <li key={index} className="mb-2 border-b border-rule-fine pb-2">
            <Line
              item={item}
              number={index + 1}
              set={change => set(index, change)}
              remove={() => onChange(value.filter((_, at) => at !== index))}
            />
          </li>
        ))}
      </ol>
      <button type="button" className="button quiet" onClick={() => onChange([...value, fresh])}>
        <Plus aria-hidden size={13} /> {addWords}
      </button>
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

interface LineHeadProps {
  readonly number: number
  readonly what: string
  readonly remove: () => void
  readonly children: ReactNode
}

/** The number of a line, its first fields, and what takes it away. */
export const LineHead = ({ number, what, remove, children }: LineHeadProps) => (
  <div className="flex items-center gap-2">
    <span className="mono w-4 text-right text-second">{number}</span>
    {children}
    <button
      type="button"
      className="border-0 bg-transparent p-0 text-second"
      aria-label={`Take ${what} ${number} away`}
      onClick={remove}
    >
      <X aria-hidden size={14} />
    </button>
  </div>
)
