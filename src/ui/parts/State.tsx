import { Circle, Contrast, Diamond, Triangle, type LucideIcon } from 'lucide-react'
import type { ReactNode } from 'react'

/** How grave something is. A shape, a word and a colour say it together, so that none is needed alone. */
export type Gravity = 'fine' | 'soon' | 'now' | 'note' | 'unknown'
const shapes: Readonly<Record<Gravity, { readonly icon: LucideIcon; readonly isFilled: boolean }>> = {
  fine: { icon: Circle, isFilled: true },
  soon: { icon: Contrast, isFilled: false },
  now: { icon: Triangle, isFilled: true },
  note: { icon: Circle, isFilled: false },
  unknown: { icon: Diamond, isFilled: false },
}
const colours: Readonly<Record<Gravity, string>> = {
  fine: 'text-fine',
  soon: 'text-soon',
  now: 'text-now',
  note: 'text-note',
  unknown: 'text-unknown',
}

/** The shape alone, where the word stands elsewhere. */
export function Mark({ gravity, size = 9 }: { readonly gravity: Gravity; readonly size?: number }) {
  const { icon: Icon, isFilled } = shapes[gravity]
  return (
    <Icon
      aria-hidden
      data-gravity={gravity}
      size={size}
      strokeWidth={2.5}
      fill={isFilled ? 'currentColor' : 'none'}
      // The half that is dark is dark, not outlined.
      className={`inline-block shrink-0 ${gravity === 'soon' ? '[&_path]:fill-current' : ''}`}
    />
  )
}

export function State({ gravity, children }: { readonly gravity: Gravity; readonly children: ReactNode }) {
  return (
    <span className={`inline-flex items-baseline gap-[5px] ${colours[gravity]}`}>
      <Mark gravity={gravity} />
      <span>{children}</span>
    </span>
  )
}

/** Why something cannot stay as it is, beside it. */
export function Trouble({ children, gravity = 'now' }: { readonly children: ReactNode; readonly gravity?: Gravity }) {
  return (
    <div className={`mt-[2px] text-xs ${colours[gravity]}`}>
      <Mark gravity={gravity} /> {children}
    </div>
  )
}
