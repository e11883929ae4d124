'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { Node } from '@/core/estate'
import type { PathCell } from '@/core/network'
import { ask } from '../../api'
import { Ago } from '../../parts/Ago'
import { Refusal } from '../../parts/Refusal'
import { Mark, State, type Gravity } from '../../parts/State'

const gravityOf: Readonly<Record<PathCell['verdict'], Gravity>> = {
  passes: 'fine',
  'smaller MTU': 'soon',
  'wrong VLAN': 'now',
  'link down': 'now',
  'no answer': 'now',
}

interface ProbeMatrixProps {
  readonly systemId: string
  readonly nodes: readonly Node[]
  readonly cells: readonly PathCell[]
  readonly at: string | null
  readonly wantedMtu: number
  readonly isSet: boolean
}

/** Who reaches whom with full frames, as it was last probed; a cell opens to the hop that explains it. */
export function ProbeMatrix({ systemId, nodes, cells, at, wantedMtu, isSet }: ProbeMatrixProps) {
  const { isProbing, refusal, probe } = useProbe(systemId)
  const [opened, open] = useState<string>()
  const cellOf = new Map(cells.map(cell => [`${cell.fromNodeId}/${cell.toNodeId}`, cell]))
  const failing = cells.filter(cell => cell.verdict !== 'passes')
  const shown = cellOf.get(opened ?? '') ?? failing[0]
  return (
    <figure className="m-0">
      <h3>
        Who reaches whom with full frames
        <span>
          {at === null ? (
            'not probed yet'
          ) : (
            <>
              probed <Ago at={at} /> with {wantedMtu} bytes, uncut
            </>
          )}
        </span>
      </h3>
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <div className="flex flex-wrap items-start gap-6">
        {cells.length > 0 && <Matrix nodes={nodes} cellOf={cellOf} shown={shown} open={open} />}
        <Beside {...{ cells, isSet, shown, nodes, wantedMtu, isProbing, probe }} />
      </div>
    </figure>
  )
}

/** Probes every path again, and shows what came of it. */
function useProbe(systemId: string) {
  const router = useRouter()
  const [isProbing, setProbing] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const probe = async () => {
    setProbing(true)
    const answer = await ask('POST', `/systems/${systemId}/path-probes`)
    setRefusal(answer.ok ? undefined : answer.refusal)
    setProbing(false)
    router.refresh()
  }
  return { isProbing, refusal, probe }
}

function Cell({
  cell,
  words,
  isOpen,
  onOpen,
}: {
  readonly cell: PathCell | undefined
  readonly words: string
  readonly isOpen: boolean
  readonly onOpen: () => void
}) {
  const gravity = cell === undefined ? 'unknown' : gravityOf[cell.verdict]
  const colour = { fine: 'text-fine', soon: 'text-soon', now: 'text-now', note: 'text-note', unknown: 'text-unknown' }[
    gravity
  ]
  return (
    <button
      type="button"
      className={`block h-[26px] w-[62px] border-0 bg-transparent text-center ${colour} ${isOpen ? 'bg-action-wash' : ''}`}
      aria-label={`${words}: ${cell?.verdict ?? 'not probed'}`}
      aria-pressed={isOpen}
      data-hint={cell?.words ?? 'not probed'}
      onClick={onOpen}
    >
      <Mark gravity={gravity} />
    </button>
  )
}

interface MatrixProps {
  readonly nodes: readonly Node[]
  readonly cellOf: ReadonlyMap<string, PathCell>
  readonly shown: PathCell | undefined
  readonly open: (path: string) => void
}

const Matrix = ({ nodes, cellOf, shown, open }: MatrixProps) => (
  <table className="border-collapse" aria-label="Paths between nodes, from the row to the column">
    <thead>
      <tr>
        <th className="pr-2 text-left text-xs font-normal text-faint">from ↓ to →</th>
        {nodes.map(node => (
          <th key={node.id} className="px-1 pb-1 text-xs font-normal text-second" scope="col">
            {node.name}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {nodes.map(from => (
        <tr key={from.id}>
          <th scope="row" className="pr-2 text-left text-xs font-normal text-second">
            {from.name}
          </th>
          {nodes.map(to => (
            <td key={to.id} className="border border-rule-fine p-0">
              {from.id === to.id ? (
                <span className="block h-[26px] w-[62px] bg-rule-fine" />
              ) : (
                <Cell
                  cell={cellOf.get(`${from.id}/${to.id}`)}
                  words={`${from.name} to ${to.name}`}
                  isOpen={shown?.fromNodeId === from.id && shown.toNodeId === to.id}
                  onOpen={() => open(`${from.id}/${to.id}`)}
                />
              )}
            </td>
          ))}
        </tr>
      ))}
    </tbody>
  </table>
)

interface ReadingProps {
  /** The path that is opened; undefined where all pass. */
  readonly cell: PathCell | undefined
  readonly nodes: readonly Node[]
  readonly wantedMtu: number
}

function Reading({ cell, nodes, wantedMtu }: ReadingProps) {
  if (cell === undefined)
    return (
      <div>
        <State gravity="fine">Every pair passes {wantedMtu} bytes whole.</State>
      </div>
    )
  const nameOf = (id: string) => nodes.find(node => node.id === id)?.name ?? ''
  return (
    <div data-path-reading>
      <b className="font-semibold">
        {nameOf(cell.fromNodeId)} → {nameOf(cell.toNodeId)}
      </b>
      <div>
        <State gravity={gravityOf[cell.verdict]}>{cell.words}</State>
      </div>
      <div className="pl-[17px] text-second">{cell.remedy}</div>
    </div>
  )
}

interface BesideProps {
  readonly cells: readonly PathCell[]
  readonly isSet: boolean
  readonly shown: PathCell | undefined
  readonly nodes: readonly Node[]
  readonly wantedMtu: number
  readonly isProbing: boolean
  readonly probe: () => Promise<void>
}

const Beside = ({ cells, isSet, shown, nodes, wantedMtu, isProbing, probe }: BesideProps) => (
  <div className="min-w-[220px] flex-1">
    {cells.length === 0 ? (
      <p className="mt-0 text-second">
        {isSet
          ? 'The paths have not been probed yet.'
          : 'Set the storage network of the nodes first; then their paths can be probed.'}
      </p>
    ) : (
      <Reading cell={shown} nodes={nodes} wantedMtu={wantedMtu} />
    )}
    <button type="button" className="button quiet mt-2" disabled={isProbing || !isSet} onClick={() => void probe()}>
      {isProbing ? 'Probing' : 'Probe all pairs now'}
    </button>
  </div>
)
