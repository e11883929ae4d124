'use client'
import { ToggleGroup } from 'radix-ui'

interface ChoiceProps<Value extends string> {
  readonly label: string
  readonly value: Value
  readonly options: readonly { readonly value: Value; readonly words: string }[]
  readonly onChange: (value: Value) => void
}

/** One of a few, side by side. */
export function Choice<Value extends string>({ label, value, options, onChange }: ChoiceProps<Value>) {
  return (
    <div className="mb-[9px]">
      <span className="label">{label}</span>
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value}
        onValueChange={next => {
          if (next !== '') onChange(next as Value)
        }}
        className="flex h-7 rounded-sm border border-rule bg-paper"
      >
        {options.map(option => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className="flex-1 border-0 border-r border-rule bg-transparent px-1 text-second last:border-r-0 data-[state=on]:bg-ink data-[state=on]:text-paper"
          >
            {option.words}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </div>
  )
}
