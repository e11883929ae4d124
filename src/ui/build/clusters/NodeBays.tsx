'use client'
import { useMemo } from 'react'
import { useRouter } from 'next/navigation'
import { intakeState, suffixOf, type Drive, type Enclosure, type Node } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { BayField, groupsOf, type FieldMark } from '../bayField'
import { groupColour } from '../bays'
import { useClusterChoice } from './ClusterChoice'

interface NodeBaysProps {
  readonly systemId: string
  readonly nodes: readonly Node[]
  readonly enclosures: readonly Enclosure[]
  readonly drives: readonly Drive[]
  readonly highlighted: string | undefined
  /** What may be chosen while a draft is open: free drives to add, or a pool's drives to take out. */
  readonly choosing: 'free' | 'members' | undefined
}

/** The bays of all nodes together: banks by colour, roles by letter, and while drafting what the choice makes of them. */
export function NodeBays({ systemId, nodes, enclosures, drives, highlighted, choosing }: NodeBaysProps) {
  const router = useRouter()
  const { chosen, choose, sketch } = useClusterChoice()
  const chosenSet = useMemo(() => new Set(chosen), [chosen])
  const nodeOf = useMemo(() => new Map(nodes.map(node => [node.enclosureId, node])), [nodes])
  const groups = useMemo(
    () =>
      groupsOf(
        enclosures,
        drives,
        enclosure => enclosure.name,
        (own, enclosure) => {
          const node = nodeOf.get(enclosure.id)
          return node?.state === 'not answering'
            ? '▲ does not answer'
            : `${node?.rack ?? ''} · ${formatBytes(own.filter(drive => !drive.isBoot).reduce((sum, drive) => sum + drive.capacityBytes, 0n))}`
        },
      ),
    [enclosures, drives, nodeOf],
  )
  const marks = useMemo(() => {
    const known = new Map<string, FieldMark>()
    const colourOf = (nodeId: string, number: number) =>
      groupColour(nodes.findIndex(node => node.id === nodeId) * 2 + number - 1)
    for (const drive of drives)
      if (drive.bank !== null && drive.nodeId !== null)
        known.set(drive.id, {
          words: `bank ${drive.bank}, ${drive.role === 'cache' ? 'cache' : 'capacity'}`,
          colour: colourOf(drive.nodeId, drive.bank),
          letter: drive.role === 'cache' ? `c${drive.bank}` : `d${drive.bank}`,
        })
    for (const bank of sketch?.banks ?? []) {
      const colour = colourOf(bank.nodeId, bank.number)
      known.set(bank.cacheDriveId, {
        words: `bank ${bank.number} of the draft, cache`,
        colour,
        letter: `c${bank.number}`,
      })
      for (const id of bank.capacityDriveIds)
        known.set(id, { words: `bank ${bank.number} of the draft, capacity`, colour, letter: `d${bank.number}` })
    }
    return known
  }, [drives, nodes, sketch])
  const canChoose = useMemo(() => {
    if (choosing === undefined) return undefined
    return (drive: Drive) =>
      choosing === 'free'
        ? !drive.isBoot && drive.role === 'unassigned' && drive.state !== 'failed'
        : drive.poolId !== null
  }, [choosing])
  return (
    <>
      <h3>
        Bays of all nodes{' '}
        <span>
          {chosen.length > 0 && choosing !== undefined
            ? `${chosen.length} chosen`
            : 'c cache, d capacity, with the bank'}
        </span>
      </h3>
      <BayField
        label="Bays of all nodes"
        groups={groups}
        marks={marks}
        chosen={chosenSet}
        highlighted={highlighted}
        canChoose={canChoose}
        onChoose={(ids, isAdding) =>
          choose(isAdding ? [...new Set([...chosen, ...ids])] : chosen.filter(id => !ids.includes(id)))
        }
        onOpen={drive => router.push(`/build/systems/${systemId}?drive=${drive.id}`, { scroll: false })}
      />
      <div className="hint flex flex-wrap gap-x-4">
        <span>◯ disk</span>
        <span>— flash</span>
        <span>▨ left over from earlier use</span>
        <span>▲ failed</span>
      </div>
      {choosing !== undefined && (
        <PrintSheet drives={drives.filter(drive => chosenSet.has(drive.id))} nodes={nodes} marks={marks} />
      )}
    </>
  )
}

/** The sheet to take into the machine room: node, bay, label and what the drive is for. Seen on paper only. */
function PrintSheet({
  drives,
  nodes,
  marks,
}: {
  readonly drives: readonly Drive[]
  readonly nodes: readonly Node[]
  readonly marks: ReadonlyMap<string, FieldMark>
}) {
  return (
    <table className="plain print-only">
      <thead>
        <tr>
          <th>Node</th>
          <th>Rack</th>
          <th className="number">Bay</th>
          <th>Label</th>
          <th>Kind</th>
          <th>For</th>
          <th>Seen</th>
        </tr>
      </thead>
      <tbody>
        {[...drives]
          .sort((a, b) => (a.nodeId === b.nodeId ? a.bay - b.bay : (a.nodeId ?? '') < (b.nodeId ?? '') ? -1 : 1))
          .map(drive => {
            const node = nodes.find(each => each.id === drive.nodeId)
            return (
              <tr key={drive.id}>
                <td>{node?.name}</td>
                <td>{node?.rack}</td>
                <td className="number">{drive.bay}</td>
                <td className="mono">{suffixOf(drive.serial)}</td>
                <td>
                  {formatBytes(drive.capacityBytes, 'decimal')} {drive.media}
                </td>
                <td>{marks.get(drive.id)?.words ?? intakeState(drive)}</td>
                <td>☐</td>
              </tr>
            )
          })}
      </tbody>
    </table>
  )
}
