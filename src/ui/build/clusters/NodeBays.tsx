'use client'
import { useMemo } from 'react'
import { useRouter } from 'next/navigation'
import { intakeState, kindWords, suffixOf, type Drive, type Enclosure, type Node } from '@/core/estate'
import type { ClusterSketch } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { unpacked, type Packed } from '@/core/views'
import { BayField, groupsOf, type FieldMark } from '../bayField'
import { groupColour } from '../bays'
import { Table } from '../../parts/Table'
import { useClusterChoice } from './ClusterChoice'

interface NodeBaysProps {
  readonly systemId: string
  readonly nodes: readonly Node[]
  readonly enclosures: readonly Enclosure[]
  readonly drives: Packed<Drive>
  readonly highlighted: string | undefined
  /** What may be chosen while a draft is open: free drives to add, or a pool's drives to take out. */
  readonly choosing: 'free' | 'members' | undefined
}

/** The bays of all nodes together: banks by colour, roles by letter, and while drafting what the choice makes of them. */
export function NodeBays({ systemId, nodes, enclosures, drives: given, highlighted, choosing }: NodeBaysProps) {
  const drives = useMemo(() => unpacked(given), [given])
  const router = useRouter()
  const { chosen, choose, sketch } = useClusterChoice()
  const chosenSet = useMemo(() => new Set(chosen), [chosen])
  const groups = useMemo(() => groupsOfNodes(nodes, enclosures, drives), [nodes, enclosures, drives])
  const marks = useMemo(() => marksOf(nodes, drives, sketch), [nodes, drives, sketch])
  const canChoose = choosing === undefined ? undefined : choosable[choosing]
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
      <Legend />
      {choosing !== undefined && (
        <PrintSheet drives={drives.filter(drive => chosenSet.has(drive.id))} nodes={nodes} marks={marks} />
      )}
    </>
  )
}

/** Which drives may be chosen. */
const choosable = {
  free: (drive: Drive) => !drive.isBoot && drive.role === 'unassigned' && drive.state !== 'failed',
  members: (drive: Drive) => drive.poolId !== null,
}

const groupsOfNodes = (nodes: readonly Node[], enclosures: readonly Enclosure[], drives: readonly Drive[]) => {
  const nodeOf = new Map(nodes.map(node => [node.enclosureId, node]))
  const bytesOf = (own: readonly Drive[]) =>
    formatBytes(own.filter(drive => !drive.isBoot).reduce((sum, drive) => sum + drive.capacityBytes, 0n))
  return groupsOf(
    enclosures,
    drives,
    enclosure => enclosure.name,
    (own, enclosure) => {
      const node = nodeOf.get(enclosure.id)
      return node?.state === 'not answering' ? '▲ does not answer' : `${node?.rack ?? ''} · ${bytesOf(own)}`
    },
  )
}

/** The bank and role of each drive, as it is and as the draft would have it. */
function marksOf(
  nodes: readonly Node[],
  drives: readonly Drive[],
  sketch: ClusterSketch | undefined,
): ReadonlyMap<string, FieldMark> {
  const known = new Map<string, FieldMark>()
  const colourOf = (nodeId: string, number: number) =>
    groupColour(nodes.findIndex(node => node.id === nodeId) * 2 + number - 1)
  const mark = (driveId: string, nodeId: string, bank: number, role: 'cache' | 'capacity', ofDraft = '') =>
    known.set(driveId, {
      words: `bank ${bank}${ofDraft}, ${role}`,
      colour: colourOf(nodeId, bank),
      letter: `${role === 'cache' ? 'c' : 'd'}${bank}`,
    })
  for (const { id, bank, nodeId, role } of drives)
    if (bank !== null && nodeId !== null) mark(id, nodeId, bank, role === 'cache' ? 'cache' : 'capacity')
  for (const bank of sketch?.banks ?? []) {
    mark(bank.cacheDriveId, bank.nodeId, bank.number, 'cache', ' of the draft')
    for (const id of bank.capacityDriveIds) mark(id, bank.nodeId, bank.number, 'capacity', ' of the draft')
  }
  return known
}

/** The sheet to take into the machine room: node, bay, label and what the drive is for. Seen on paper only. */
function PrintSheet({ drives, nodes, marks }: PrintSheetProps) {
  const nodeOf = (drive: Drive) => nodes.find(each => each.id === drive.nodeId)
  const sorted = [...drives].sort((a, b) =>
    a.nodeId === b.nodeId ? a.bay - b.bay : (a.nodeId ?? '') < (b.nodeId ?? '') ? -1 : 1,
  )
  return (
    <div className="print-only">
      <Table
        rows={sorted}
        keyOf={drive => drive.id}
        columns={[
          { head: 'Node', cell: drive => nodeOf(drive)?.name },
          { head: 'Rack', cell: drive => nodeOf(drive)?.rack },
          { head: 'Bay', cell: drive => drive.bay, isNumber: true },
          { head: 'Label', cell: drive => suffixOf(drive.serial), className: 'mono' },
          { head: 'Kind', cell: kindWords },
          { head: 'For', cell: drive => marks.get(drive.id)?.words ?? intakeState(drive) },
          { head: 'Seen', cell: () => '☐' },
        ]}
      />
    </div>
  )
}

interface PrintSheetProps {
  readonly drives: readonly Drive[]
  readonly nodes: readonly Node[]
  readonly marks: ReadonlyMap<string, FieldMark>
}

const Legend = () => (
  <div className="hint flex flex-wrap gap-x-4">
    <span>◯ disk</span>
    <span>— flash</span>
    <span>▨ left over from earlier use</span>
    <span>▲ failed</span>
  </div>
)
