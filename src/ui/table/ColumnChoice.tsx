'use client'
import { DropdownMenu } from 'radix-ui'
import { Check } from 'lucide-react'

interface ColumnChoiceProps {
  readonly columns: readonly { readonly id: string; readonly head: string }[]
  readonly shown: readonly string[]
  readonly onChange: (shown: readonly string[]) => void
}

/** Which columns a table shows; the first always stands, as it opens the row. */
export function ColumnChoice({ columns: [, ...columns], shown, onChange }: ColumnChoiceProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button quiet h-7 px-[9px] font-normal">Columns</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-20 min-w-[170px] rounded-sm border border-rule bg-sheet p-1 shadow-md"
        >
          {columns.map(({ id, head }) => (
            <DropdownMenu.CheckboxItem
              key={id}
              checked={shown.includes(id)}
              onSelect={event => event.preventDefault()}
              onCheckedChange={isOn => onChange(isOn ? [...shown, id] : shown.filter(each => each !== id))}
              className="flex cursor-default items-center gap-2 rounded-sm px-2 py-[3px] outline-none data-[highlighted]:bg-action-wash"
            >
              <span aria-hidden className="w-3 text-action">
                {shown.includes(id) && <Check size={12} />}
              </span>
              {head}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
