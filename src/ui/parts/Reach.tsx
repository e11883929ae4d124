import type { System } from '@/core/estate'
import { State } from './State'

/** Whether a system answers, in a word. */
export const Reach = ({ of }: { readonly of: Pick<System, 'reach'> }) =>
  of.reach === 'answering' ? <State gravity="fine">answers</State> : <State gravity="now">silent</State>

/** Whether a system answers and where, or why it does not. */
export const ReachWhy = ({ of }: { readonly of: Pick<System, 'reach' | 'address' | 'reachWhy'> }) =>
  of.reach === 'answering' ? (
    <State gravity="fine">answers at {of.address}</State>
  ) : (
    <State gravity="now">silent: {of.reachWhy}</State>
  )
