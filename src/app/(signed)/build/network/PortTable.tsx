import { byId, type NodePort } from '@/core/estate'
import { nameTrouble } from '@/core/network'
import { formatBitsPerSecond } from '@/core/units'
import type { RowNetwork } from '@/records/queries'
import { State } from '@/ui/parts/State'
import { Table, type Column } from '@/ui/parts/Table'
import { Tip } from '@/ui/parts/Tip'

/** The ports of the nodes: what each carries, how it is set, and where it leads. */
export function PortTable(network: RowNetwork) {
  const { nodePorts } = network
  return (
    <>
      <h3>
        Ports <span>{nodePorts.length}</span>
      </h3>
      <Table rows={nodePorts} keyOf={port => port.id} columns={columnsFor(network)} />
    </>
  )
}

function columnsFor({ nodes, switches, switchPorts, nameAnswers }: RowNetwork): readonly Column<NodePort>[] {
  const hostNameOf = (port: NodePort) => byId(nodes, port.nodeId)?.hostName ?? null
  return [
    { head: 'Node', cell: port => byId(nodes, port.nodeId)?.name, className: 'whitespace-nowrap' },
    {
      head: 'Port',
      cell: port => `${port.name}, ${formatBitsPerSecond(port.speedBitsPerSecond)}`,
      className: 'whitespace-nowrap',
    },
    { head: 'Carries', cell: port => carries(port) || <span className="text-faint">nothing</span> },
    { head: 'Address', cell: addressOf, className: 'mono whitespace-nowrap' },
    { head: 'VLAN', cell: ({ storage }) => (storage === null ? '' : (storage.vlan ?? '—')), isNumber: true },
    { head: 'MTU', cell: port => port.mtu, isNumber: true },
    {
      head: 'Far end',
      className: 'whitespace-nowrap',
      cell: port => {
        const far = byId(switchPorts, port.switchPortId)
        if (far === undefined) return <span className="text-faint">not stated</span>
        return `${byId(switches, far.switchId)?.name ?? ''} port ${far.name}`
      },
    },
    {
      head: 'Name',
      cell: port => (
        <NameMark hostName={hostNameOf(port)} address={port.storage?.address ?? null} answers={nameAnswers} />
      ),
    },
  ]
}

const carries = ({ storage, traffic }: NodePort) => [...(storage === null ? [] : ['storage']), ...traffic].join(', ')

function addressOf({ storage }: NodePort): string {
  if (storage === null) return ''
  return storage.address === null ? 'leased' : `${storage.address}/${storage.prefixLength ?? ''}`
}

interface NameMarkProps {
  readonly hostName: string | null
  readonly address: string | null
  readonly answers: RowNetwork['nameAnswers']
}

/** Whether the name server leads from the node to the address and back. */
function NameMark({ hostName, address, answers }: NameMarkProps) {
  if (hostName === null || address === null) return null
  const trouble = nameTrouble(hostName, address, answers)
  if (trouble === null) return null
  if (trouble === undefined) return <State gravity="fine">agrees</State>
  return (
    <Tip words={trouble}>
      <button type="button" className="border-0 bg-transparent p-0 whitespace-nowrap">
        <State gravity="soon">differs</State>
      </button>
    </Tip>
  )
}
