import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { byId, type System } from '@/core/estate'
import { pathMatrix, storagePort } from '@/core/network'
import { countAtStart, countWords } from '@/core/units'
import type { FindingRecord } from '@/core/views'
import { rowNetwork, rowSystemIds, standingFindings, systems, type RowNetwork } from '@/records/queries'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { ImportCatalogue } from '@/ui/watch/catalogues'
import { FindingList } from '@/ui/watch/findings'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import {
  NetworkDrawing,
  ProbeMatrix,
  SetNodeClock,
  SetRestartService,
  SetStorageNetwork,
  SetSwitchPort,
} from '@/ui/build/network'
import { buildParts } from '../parts'
import { PortTable } from './PortTable'

export const metadata = { title: 'Network' }

type Params = Readonly<Partial<Record<'system' | 'draft' | 'change' | 'node' | 'port' | 'mtu' | 'finding', string>>>

export default async function Page({ searchParams }: { readonly searchParams: Promise<Params> }) {
  const params = await onlyTexts(searchParams)
  const { scope } = await reader()
  const rowIds = await rowSystemIds(scope)
  const all = (await systems(scope)).filter(system => rowIds.includes(system.id))
  const system = byId(all, params.system) ?? all[0]
  if (system === undefined) return <NoRow />
  const network = await rowNetwork(scope, system.id)
  const { nodes, nodePorts, switches, switchPorts, probe } = network
  const cells = cellsOf(network)
  const failing = cells.filter(cell => cell.verdict !== 'passes')
  const set = nodes.filter(node => storagePort(nodePorts, node.id) !== undefined)
  return (
    <Frame margin={await margin(params, system.id, network)}>
      <Title words="Network">
        <SubSections of={buildParts} />
      </Title>
      <Sentence name={system.name} nodes={nodes.length} switches={switches.length} set={set.length} cells={cells} />
      {all.length > 1 && <Rows of={all} shown={system.id} />}
      <NetworkDrawing
        nodes={nodes}
        nodePorts={nodePorts}
        switches={switches}
        switchPorts={switchPorts}
        guilty={new Set(failing.flatMap(cell => cell.hop?.id ?? []))}
        systemId={system.id}
      />
      <ProbeMatrix
        systemId={system.id}
        nodes={set}
        cells={cells}
        at={probe?.at ?? null}
        wantedMtu={probe?.wantedMtu ?? 0}
        isSet={set.length > 1}
      />
      <PortTable {...network} />
    </Frame>
  )
}

/** Every path between nodes, as it was last probed. */
function cellsOf({ nodes, nodePorts, switches, switchPorts, probe }: RowNetwork) {
  const nodeName = (id: string) => byId(nodes, id)?.name ?? ''
  return probe === undefined ? [] : pathMatrix(nodes, { ports: nodePorts, switches, switchPorts, nodeName }, probe)
}

interface SentenceProps {
  readonly name: string
  readonly nodes: number
  readonly switches: number
  /** How many nodes have a storage network. */
  readonly set: number
  readonly cells: ReturnType<typeof pathMatrix>
}

function Sentence({ name, nodes, switches, set, cells }: SentenceProps) {
  const failing = cells.filter(cell => cell.verdict !== 'passes').length
  return (
    <p className="sentence">
      <b>
        {countAtStart(nodes, 'node', 'nodes')} of {name} behind {countWords(switches, 'switch', 'switches')};{' '}
        {set === 0 ? 'no storage network is set yet.' : `${countWords(set, 'has', 'have')} a storage network.`}
      </b>{' '}
      {cells.length === 0
        ? 'Paths are probed once it is set.'
        : failing === 0
          ? `All ${cells.length} paths between them pass full frames.`
          : `${failing} of ${cells.length} paths do not pass full frames.`}
    </p>
  )
}

const Rows = ({ of, shown }: { readonly of: readonly System[]; readonly shown: string }) => (
  <nav aria-label="Rows of nodes" className="mb-2 flex gap-4">
    {of.map(({ id, name }) => (
      <Link
        key={id}
        href={`/build/network?system=${id}`}
        className={id === shown ? 'font-semibold no-underline' : 'text-second no-underline'}
      >
        {name}
      </Link>
    ))}
  </nav>
)

async function margin(params: Params, systemId: string, { nodes, nodePorts, switches, switchPorts }: RowNetwork) {
  const { scope } = await reader()
  const { draft, change } = params
  const kept = draft === undefined ? undefined : await keptDraft(change, draft)
  const mtu = Number(params.mtu) || undefined
  const port = byId(switchPorts, params.port)
  const node = byId(nodes, params.node)
  const all = await standingFindings(scope, null)
  // A draft of an exception is edited here, whichever system its finding is of.
  const finding = all.find(each => each.finding.key === params.finding)?.finding
  const inKey = (form: React.ReactNode, of = '') => (
    <KeyedDraft id={change} of={`${draft ?? ''}/${of}`}>
      {form}
    </KeyedDraft>
  )
  if (draft === 'set-storage-network')
    return inKey(<SetStorageNetwork systemId={systemId} nodes={nodes} nodePorts={nodePorts} mtu={mtu} kept={kept} />)
  if (draft === 'set-switch-port' && port !== undefined) {
    const name = `${byId(switches, port.switchId)?.name ?? 'switch'} port ${port.name}`
    return inKey(<SetSwitchPort {...{ systemId, port, name, mtu, kept }} />, port.id)
  }
  if (draft === 'set-node-clock' && node !== undefined)
    return inKey(<SetNodeClock {...{ systemId, node, kept }} />, node.id)
  if (draft === 'set-restart-service')
    return inKey(<SetRestartService {...{ systemId, kept }} nodes={node === undefined ? nodes : [node]} />, node?.id)
  if (draft === 'import-catalogue') return inKey(<ImportCatalogue kept={kept} />)
  if (draft === 'sign-exception' && finding !== undefined)
    return inKey(
      <IntentForm
        kind={draft}
        title={`Let stand: ${finding.title}`}
        begin={{ findingKey: finding.key, findingTitle: finding.title, gravity: finding.gravity }}
        kept={kept}
      />,
      finding.key,
    )
  return <NetworkMargin systemId={systemId} all={all} />
}

function NoRow() {
  return (
    <Frame
      margin={
        <Margin foot={<NewDraft href="/build?draft=register-system">Register a row of nodes</NewDraft>}>
          <h2>Building a cluster</h2>
          <p>
            A row of bare servers is registered by its management address. Then its storage network is set and probed
            here, its drives are looked through, and the nodes become one cluster.
          </p>
        </Margin>
      }
    >
      <Title words="Network">
        <SubSections of={buildParts} />
      </Title>
      <p className="sentence">
        <b>No row of nodes is registered yet.</b> Register one by its management address.
      </p>
    </Frame>
  )
}

interface NetworkMarginProps {
  readonly systemId: string
  readonly all: FindingRecord[]
}

const NetworkMargin = ({ systemId, all }: NetworkMarginProps) => (
  <Margin
    foot={
      <>
        <NewDraft href={`/build/network?system=${systemId}&draft=set-storage-network`}>
          Set the storage network
        </NewDraft>
        <Link className="button quiet" href={`/build/network?system=${systemId}&draft=import-catalogue`}>
          Import a firmware catalogue
        </Link>
      </>
    }
  >
    <h2>What stands in the way</h2>
    <FindingList
      records={all.filter(each => each.systemId === systemId)}
      signHref={`/build/network?system=${systemId}&draft=sign-exception&finding=`}
    />
  </Margin>
)
