import { Link } from '@/ui/parts/Link'
import type { Drive, Node } from '@/core/estate'
import { State } from '@/ui/parts/State'
import { Table, type Column } from '@/ui/parts/Table'

interface NodeTableProps {
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly systemId: string
}

/** The nodes of a row, one after another. */
export function NodeTable({ nodes, drives, systemId }: NodeTableProps) {
  return (
    <>
      <h3>
        Nodes <span>{nodes.length}</span>
      </h3>
      <Table rows={nodes} keyOf={node => node.id} columns={columnsFor(drives, systemId)} />
    </>
  )
}

function columnsFor(drives: readonly Drive[], systemId: string): readonly Column<Node>[] {
  const used = (node: Node) => drives.filter(drive => drive.nodeId === node.id && drive.poolId !== null).length
  const all = (node: Node) => drives.filter(drive => drive.nodeId === node.id && !drive.isBoot).length
  return [
    { head: 'Node', cell: node => node.name, className: 'font-semibold' },
    { head: 'Rack', cell: node => node.rack ?? '—' },
    { head: 'Firmware', cell: node => node.firmware ?? '—' },
    {
      head: 'Clock',
      cell: ({ clockOffsetSeconds: off }) => `${off > 0 ? '+' : ''}${off.toFixed(1)} s`,
      isNumber: true,
    },
    {
      head: 'Restart service',
      cell: node => (
        <Link
          className="no-underline"
          href={`/build/network?system=${systemId}&draft=set-restart-service&node=${node.id}`}
        >
          {node.isRestartServiceOn ? <State gravity="fine">on</State> : <State gravity="soon">off</State>}
        </Link>
      ),
    },
    { head: 'Drives', cell: node => `${used(node)} of ${all(node)} in use`, isNumber: true },
    {
      head: 'State',
      cell: node =>
        node.state === 'fine' ? <State gravity="fine">answers</State> : <State gravity="now">does not answer</State>,
    },
  ]
}
