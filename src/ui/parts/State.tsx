import type { ReactNode } from 'react'

/** How grave something is. A shape, a word and a colour say it together, so that none is needed alone. */
export type Gravity = 'fine' | 'soon' | 'now' | 'note' | 'unknown'
const marks: Readonly<Record<Gravity, string>> = { fine: '●', soon: '◐', now: '▲', note: '○', unknown: '◇' }
const colours: Readonly<Record<Gravity, string>> = {
  fine: 'text-fine',
  soon: 'text-soon',
  now: 'text-now',
  note: 'text-note',
  unknown: 'text-unknown',
}

export function State({ gravity, children }: { readonly gravity: Gravity; readonly children: ReactNode }) {
  return (
    <span className={`inline-flex items-baseline gap-[5px] ${colours[gravity]}`}>
      <span aria-hidden>{marks[gravity]}</span>
      <span>{children}</span>
    </span>
  )
}
