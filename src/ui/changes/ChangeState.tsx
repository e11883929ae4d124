import type { ChangeState as StateName } from '@/core/plan'
import { State, type Gravity } from '../parts/State'

const gravity: Readonly<Record<StateName, Gravity>> = {
  draft: 'note',
  checked: 'note',
  running: 'unknown',
  proven: 'fine',
  unproven: 'now',
  stopped: 'soon',
  failed: 'now',
  undone: 'note',
}

export function ChangeState({ state }: { readonly state: StateName }) {
  return <State gravity={gravity[state]}>{state}</State>
}
