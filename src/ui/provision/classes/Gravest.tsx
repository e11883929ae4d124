import type { PromiseKept } from '@/core/classes'
import type { PromiseCount } from '@/core/views'
import { State, type Gravity } from '../../parts/State'
import { gravestOf } from './gravestOf'

const gravity: Readonly<Record<PromiseKept['state'], Gravity>> = {
  broken: 'now',
  'at risk': 'soon',
  kept: 'fine',
  'not measured': 'unknown',
}

interface GravestProps {
  readonly counts: PromiseCount['counts']
  /** For how many is said also where nothing is wrong. */
  readonly isCounted?: boolean
}

/** The gravest state of a promise, and for how many. */
export function Gravest({ counts, isCounted = false }: GravestProps) {
  const { state, volumes } = gravestOf(counts)
  const isWrong = state === 'broken' || state === 'at risk'
  return (
    <State gravity={gravity[state]}>
      {isCounted || isWrong ? `${volumes.toLocaleString('en')} ` : ''}
      {state}
    </State>
  )
}
