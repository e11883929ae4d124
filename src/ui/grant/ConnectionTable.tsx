import type { ConnectionHop } from '@/core/network'
import type { ConnectionTest } from '@/core/views'
import { Mark } from '../parts/State'
import { Ago } from '../parts/Ago'
import { millisecondsWords } from './connectionWords'

const gravityOf = { passes: 'fine', stops: 'now', 'not tried': 'unknown' } as const
const wordOf = { passes: 'passes', stops: 'ends here', 'not tried': 'not tried' } as const

interface ConnectionTableProps {
  readonly test: ConnectionTest
  readonly before: ConnectionTest | undefined
}

/** Every hop with what was found there and how long it took; beside it what was found there before. */
export function ConnectionTable({ test, before }: ConnectionTableProps) {
  return (
    <table className="plain rows">
      <thead>
        <tr>
          <th className="w-[92px]">Hop</th>
          <th>
            Found <Ago at={test.at} />
          </th>
          <th className="number w-[76px]">Took</th>
          {before !== undefined && (
            <th className="w-[34%]">
              Before: <Ago at={before.at} />
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {test.hops.map(hop => (
          <tr key={hop.hop}>
            <td className="font-semibold">{hop.label}</td>
            <td data-head="Found">
              <Found hop={hop} />
            </td>
            <td data-head="Took" className="number mono">
              {millisecondsWords(hop.milliseconds)}
            </td>
            {before !== undefined && (
              <td data-head="Before" className="text-second">
                <Earlier hop={hop} earlier={before.hops.find(each => each.hop === hop.hop)} />
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

interface EarlierProps {
  readonly hop: ConnectionHop
  readonly earlier: ConnectionHop | undefined
}

const Earlier = ({ hop, earlier }: EarlierProps) =>
  earlier === undefined ? '–' : sameHop(hop, earlier) ? 'the same' : <Found hop={earlier} />

const sameHop = (a: ConnectionHop, b: ConnectionHop) => a.state === b.state && a.words === b.words

const Found = ({ hop: { state, words } }: { readonly hop: ConnectionHop }) => (
  <span className="grid grid-cols-[14px_minmax(0,1fr)] items-baseline gap-x-1.5">
    <span className={{ passes: 'text-fine', stops: 'text-now', 'not tried': 'text-second' }[state]}>
      <Mark gravity={gravityOf[state]} />
    </span>
    <span className="break-words">
      <span className="sr-only">{wordOf[state]}: </span>
      {words}
    </span>
  </span>
)
