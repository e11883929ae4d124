import type { PromiseKept } from '@/core/classes'
import type { ClassKept, PromiseCount } from '@/core/views'
import { Gravest } from './Gravest'
import { gravestFirst } from './gravestOf'

interface KeptBarsProps {
  readonly classes: readonly ClassKept[]
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
                  <Gravest counts={line.counts} isCounted />
                </td>
              </tr>
            )),
          )}
      </tbody>
    </table>
  </figure>
)

interface BarProps {
  readonly counts: PromiseCount['counts']
  readonly volumes: number
}

const Bar = ({ counts, volumes }: BarProps) => (
  <span
    role="img"
    aria-label={gravestFirst.flatMap(state => (counts[state] === 0 ? [] : [`${counts[state]} ${state}`])).join(', ')}
    className="flex h-[9px] w-full border border-rule bg-sheet"
  >
    {gravestFirst.map(state => (
      <i
        key={state}
        style={{ width: `${(counts[state] / Math.max(1, volumes)) * 100}%`, background: colours[state] }}
      />
    ))}
  </span>
)
