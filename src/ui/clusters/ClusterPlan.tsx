'use client'
import type { ClusterSketch } from '@/core/plan'
import { formatBytes, formatSeconds, oddsInWords } from '@/core/units'
import { Ladder } from '../ladder'
import { Bytes } from '../parts/Bytes'
import { State } from '../parts/State'

/** What a cluster of the chosen drives would be: space, what it survives, what it strands, and what other layouts would give. */
export function ClusterPlan({ sketch }: { readonly sketch: ClusterSketch }) {
  if (sketch.banks.length === 0)
    return <p className="text-second">Choose drives: what they give, survive and strand is computed here as you go.</p>
  return (
    <>
      <Ladder title="What this gives" rungs={sketch.ladder} />
      <Promises sketch={sketch} />
      <Stranded sketch={sketch} />
      <Alternatives sketch={sketch} />
      <Differences nodes={sketch.nodes} />
    </>
  )
}

function Promises({ sketch: { tolerance, durability, rebuild, writeCost } }: { readonly sketch: ClusterSketch }) {
  const lines: readonly (readonly [string, string])[] = [
    ['Stays readable', `with any ${tolerance.readable} ${tolerance.domainWords} lost at once`],
    [
      'Stays writable',
      tolerance.writable === 0
        ? `only while none of the ${tolerance.domainWords} is lost`
        : `with any ${tolerance.writable} lost at once`,
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
  return (
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

function Alternatives({ sketch: { alternatives } }: { readonly sketch: ClusterSketch }) {
  if (alternatives.length === 0) return null
  return (
    <details className="mt-2">
      <summary className="cursor-pointer text-second">Other layouts of the same drives</summary>
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
    </details>
  )
}

function Differences({ nodes }: { readonly nodes: ClusterSketch['nodes'] }) {
  const [first] = nodes
  if (first === undefined) return null
  const isOdd = nodes.some(node => node.cells.some(cell => cell.isOdd))
  return (
    <details className="mt-2" open={isOdd}>
      <summary className="cursor-pointer text-second">
        {isOdd ? 'What differs between the nodes' : 'All nodes are alike'}
      </summary>
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
                    {cell.isOdd ? '◐ ' : ''}
                    {cell.value}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}
