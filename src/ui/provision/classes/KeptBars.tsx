import type { PromiseKept, PromiseName } from '@/core/classes'
import { State, type Gravity } from '../../parts/State'

interface KeptBarsProps {
  readonly classes: readonly {
    readonly id: string
    readonly name: string
    readonly volumes: number
    readonly promises: readonly {
      readonly promise: PromiseName
      readonly promised: string
      readonly counts: Readonly<Record<PromiseKept['state'], number>>
    }[]
  }[]
}

const order = ['broken', 'at risk', 'kept', 'not measured'] as const
const gravity: Readonly<Record<PromiseKept['state'], Gravity>> = {
  broken: 'now',
  'at risk': 'soon',
  kept: 'fine',
  'not measured': 'unknown',
}
const colours: Readonly<Record<PromiseKept['state'], string>> = {
  broken: 'var(--now)',
  'at risk': 'var(--soon)',
  kept: 'var(--fine)',
  'not measured': 'var(--rule)',
}

/** How each promise is kept: for how many of the volumes under each class. */
export const KeptBars = ({ classes }: KeptBarsProps) => (
  <figure className="m-0 mt-4">
    <h3>
      How they are kept <span>volumes under each class, by promise</span>
    </h3>
    <table className="plain">
      <tbody>
        {classes
          .filter(({ volumes }) => volumes > 0)
          .flatMap(each =>
            each.promises.map((line, index) => (
              <tr key={`${each.id}/${line.promise}`}>
                <td className="w-[150px] font-semibold">{index === 0 ? each.name : ''}</td>
                <td>{line.promised}</td>
                <td className="w-[190px] align-middle">
                  <Bar counts={line.counts} volumes={each.volumes} />
                </td>
                <td className="w-[130px] whitespace-nowrap">
                  <Worst counts={line.counts} />
                </td>
              </tr>
            )),
          )}
      </tbody>
    </table>
  </figure>
)

interface CountsProps {
  readonly counts: KeptBarsProps['classes'][number]['promises'][number]['counts']
}

const Bar = ({ counts, volumes }: CountsProps & { readonly volumes: number }) => (
  <span
    role="img"
    aria-label={order.flatMap(state => (counts[state] === 0 ? [] : [`${counts[state]} ${state}`])).join(', ')}
    className="flex h-[9px] w-full border border-rule bg-sheet"
  >
    {order.map(state => (
      <i
        key={state}
        style={{ width: `${(counts[state] / Math.max(1, volumes)) * 100}%`, background: colours[state] }}
      />
    ))}
  </span>
)

/** The gravest state, and for how many. */
function Worst({ counts }: CountsProps) {
  const worst = order.find(state => counts[state] > 0) ?? 'not measured'
  return (
    <State gravity={gravity[worst]}>
      {counts[worst].toLocaleString('en')} {worst}
    </State>
  )
}
