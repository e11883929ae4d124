import type { PromiseKept } from '@/core/classes'
import { State, type Gravity } from '../../parts/State'

const gravity: Readonly<Record<PromiseKept['state'], Gravity>> = {
  kept: 'fine',
  'at risk': 'soon',
  broken: 'now',
  'not measured': 'unknown',
}

/** What is promised, each line with the measurement behind it. */
export const PromiseLines = ({ promises }: { readonly promises: readonly PromiseKept[] }) => (
  <table className="plain">
    <tbody>
      {promises.map(({ promise, promised, measured, state }) => (
        <tr key={promise}>
          <td className="align-top">
            {promised}
            <div className="text-sm text-second">{measured}</div>
          </td>
          <td className="align-top whitespace-nowrap">
            <State gravity={gravity[state]}>{state}</State>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
)

/** How many of a class's promises are kept, in a sentence's words. */
export function keptWords(promises: readonly PromiseKept[]): string {
  const measured = promises.filter(({ state }) => state !== 'not measured')
  const kept = measured.filter(({ state }) => state === 'kept').length
  return `${kept} of ${measured.length} kept${measured.length < promises.length ? `, ${promises.length - measured.length} not measured` : ''}`
}
