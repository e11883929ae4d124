'use client'
import type { ClusterSketch } from '@/core/plan'
import { formatBytes, formatSeconds, oddsInWords } from '@/core/units'
import { Ladder } from '../../drawings/ladder'
import { Bytes } from '../../parts/Bytes'
import { State } from '../../parts/State'
import { Fold } from '../../parts/Fold'
import { Mark } from '../../parts/State'

interface ClusterPlanProps {
  readonly sketch: ClusterSketch
  /** On the sheet, where there is room for two columns. */
  readonly isWide?: boolean
}

/** What a cluster of the chosen drives would be: space, what it survives, what it strands, and what other layouts would give. */
export function ClusterPlan({ sketch, isWide = false }: ClusterPlanProps) {
  if (sketch.banks.length === 0)
    return (
      <p className="text-second">
        Choose drives, a cache drive in each node among them: what they give, survive and strand is computed here as you
        go.
      </p>
    )
  return (
    <div className={isWide ? 'gap-x-6 min-[1200px]:grid min-[1200px]:grid-cols-2' : ''}>
      <div className="min-w-0">
        <Ladder title="What this gives" rungs={sketch.ladder} width={isWide ? 400 : 460} />
        <Stranded sketch={sketch} />
      </div>
      <div className="min-w-0">
        <Promises sketch={sketch} />
      </div>
      <div className="min-w-0 min-[1200px]:col-span-2">
        <Alternatives sketch={sketch} isOpen={isWide} />
        <Differences nodes={sketch.nodes} />
      </div>
    </div>
  )
}

/** So many of the domains, whichever they are. */
const anyOf = (count: number, domainWords: string) =>
  count === 1 ? `any one ${domainWords.replace(/s$/, '')}` : `any ${count} ${domainWords}`

type Line = readonly [string, string]

/** What a cluster promises, a line each. */
const promisesOf = ({ tolerance, durability, rebuild, writeCost }: ClusterSketch): readonly Line[] => [
  [
    'Stays readable',
    `with ${anyOf(tolerance.readable, tolerance.domainWords)} lost${tolerance.readable > 1 ? ' at once' : ''}`,
  ],
  [
    'Stays writable',
    tolerance.writable === 0
      ? `only while none of the ${tolerance.domainWords} is lost`
      : `with ${anyOf(tolerance.writable, tolerance.domainWords)} lost${tolerance.writable > 1 ? ' at once' : ''}`,
  ],
  ['Loss of data in 5 years', durability === null ? 'not computable yet' : oddsInWords(durability.fiveYears)],
  [
    'While one is away for service',
    durability === null
      ? 'not computable yet'
      : `${oddsInWords(durability.whileOneIsAway)} in ${durability.awayHours} hours`,
  ],
  [
    'A lost drive is whole again in',
    rebuild === null
      ? 'not computable yet'
      : `${formatSeconds(rebuild.seconds)}, bound by ${rebuild.boundBy}, full drives`,
  ],
  [
    'A small write takes',
    `${writeCost.smallWriteOperations} operations; a full stripe writes ${writeCost.fullStripeRatio.toFixed(2)} × its data`,
  ],
]

function Promises({ sketch }: { readonly sketch: ClusterSketch }) {
  const { durability } = sketch
  const lines = promisesOf(sketch)
  return (
    <>
      <h3>What it survives and costs</h3>
      <table className="plain mt-1">
        <tbody>
          {lines.map(([name, words]) => (
            <tr key={name}>
              <td className="text-second">{name}</td>
              <td>{words}</td>
            </tr>
          ))}
          {durability !== null && (
            <tr>
              <td colSpan={2} className="hint">
                Taken: {durability.basis}.
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </>
  )
}

function Stranded({ sketch: { domains, lacking } }: { readonly sketch: ClusterSketch }) {
  const odd = domains.filter(domain => domain.strandedBytes !== '0')
  if (odd.length === 0) return null
  return (
    <>
      <h3>Stranded</h3>
      <table className="plain">
        <tbody>
          {odd.map(domain => (
            <tr key={domain.name}>
              <td>{domain.name}</td>
              <td className="number">
                <Bytes bytes={domain.strandedBytes} /> of <Bytes bytes={domain.rawBytes} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {lacking !== null && (
        <State gravity="note">
          {formatBytes(BigInt(lacking.bytes), 'decimal')} more on {lacking.domainNames.join(', ')}
          {lacking.domainNames.length > 1 ? ' together' : ''} would let all of it be used.
        </State>
      )}
    </>
  )
}

function Alternatives({
  sketch: { alternatives },
  isOpen,
}: {
  readonly sketch: ClusterSketch
  readonly isOpen: boolean
}) {
  if (alternatives.length === 0) return null
  return (
    <Fold className="mt-2" title="Other layouts of the same drives" isOpen={isOpen}>
      <table className="plain">
        <thead>
          <tr>
            <th>Layout</th>
            <th className="number">Free</th>
            <th className="number">Stranded</th>
            <th className="number">Readable</th>
            <th className="number">Writable</th>
          </tr>
        </thead>
        <tbody>
          {alternatives.map(each => (
            <tr key={each.words}>
              <td>{each.words}</td>
              <td className="number">
                <Bytes bytes={each.freeBytes} />
              </td>
              <td className="number">
                <Bytes bytes={each.strandedBytes} />
              </td>
              <td className="number">−{each.readable}</td>
              <td className="number">−{each.writable}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Fold>
  )
}

function Differences({ nodes }: { readonly nodes: ClusterSketch['nodes'] }) {
  const [first] = nodes
  if (first === undefined) return null
  const isOdd = nodes.some(node => node.cells.some(cell => cell.isOdd))
  return (
    <Fold className="mt-2" title={isOdd ? 'What differs between the nodes' : 'All nodes are alike'} isOpen={isOdd}>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Node</th>
              {first.cells.map(cell => (
                <th key={cell.what}>{cell.what}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {nodes.map(node => (
              <tr key={node.id}>
                <td>{node.name}</td>
                {node.cells.map(cell => (
                  <td key={cell.what} className={cell.isOdd ? 'text-soon' : ''}>
                    {cell.isOdd && <Mark gravity="soon" />} {cell.value}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Fold>
  )
}
