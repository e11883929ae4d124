import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { byId } from '@/core/estate'
import { nameTrouble, pathMatrix, storagePort } from '@/core/network'
import { countAtStart, countWords, formatBitsPerSecond } from '@/core/units'
import { rowNetwork, rowSystemIds, standingFindings, systems, type RowNetwork } from '@/records/queries'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { FindingList, ImportCatalogue } from '@/ui/watch/findings'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import {
  NetworkDrawing,
  ProbeMatrix,
  SetNodeClock,
  SetRestartService,
  SetStorageNetwork,
  SetSwitchPort,
} from '@/ui/build/network'
import { State } from '@/ui/parts/State'
import { buildParts } from '../parts'

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
  const nodeName = (id: string) => byId(nodes, id)?.name ?? ''
  const cells =
    probe === undefined ? [] : pathMatrix(nodes, { ports: nodePorts, switches, switchPorts, nodeName }, probe)
  const failing = cells.filter(cell => cell.verdict !== 'passes')
  const set = nodes.filter(node => storagePort(nodePorts, node.id) !== undefined)
  return (
    <Frame margin={await margin(params, system.id, network)}>
      <Title words="Network">
        <SubSections of={buildParts} />
      </Title>
      <p className="sentence">
        <b>
          {countAtStart(nodes.length, 'node', 'nodes')} of {system.name} behind{' '}
          {countWords(switches.length, 'switch', 'switches')};{' '}
          {set.length === 0
            ? 'no storage network is set yet.'
            : `${countWords(set.length, 'has', 'have')} a storage network.`}
        </b>{' '}
        {cells.length === 0
          ? 'Paths are probed once it is set.'
          : failing.length === 0
            ? `All ${cells.length} paths between them pass full frames.`
            : `${failing.length} of ${cells.length} paths do not pass full frames.`}
      </p>
      {all.length > 1 && (
        <nav aria-label="Rows of nodes" className="mb-2 flex gap-4">
          {all.map(each => (
            <Link
              key={each.id}
              href={`/build/network?system=${each.id}`}
              className={each.id === system.id ? 'font-semibold no-underline' : 'text-second no-underline'}
            >
              {each.name}
            </Link>
          ))}
        </nav>
      )}
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

async function margin(params: Params, systemId: string, { nodes, nodePorts, switches, switchPorts }: RowNetwork) {
  const { scope } = await reader()
  const { draft, change } = params
  const kept = draft === undefined ? undefined : await keptDraft(change, draft)
  const mtu = Number(params.mtu) || undefined
  const port = byId(switchPorts, params.port)
  const node = byId(nodes, params.node)
  const records = await standingFindings(scope, systemId)
  const finding = records.find(each => each.finding.key === params.finding)?.finding
  const inKey = (form: React.ReactNode, of = '') => (
    <KeyedDraft id={change} of={`${draft ?? ''}/${of}`}>
      {form}
    </KeyedDraft>
  )
  if (draft === 'set-storage-network')
    return inKey(<SetStorageNetwork systemId={systemId} nodes={nodes} nodePorts={nodePorts} mtu={mtu} kept={kept} />)
  if (draft === 'set-switch-port' && port !== undefined)
    return inKey(
      <SetSwitchPort
        systemId={systemId}
        port={port}
        name={`${byId(switches, port.switchId)?.name ?? 'switch'} port ${port.name}`}
        mtu={mtu}
        kept={kept}
      />,
      port.id,
    )
  if (draft === 'set-node-clock' && node !== undefined)
    return inKey(<SetNodeClock systemId={systemId} node={node} kept={kept} />, node.id)
  if (draft === 'set-restart-service')
    return inKey(
      <SetRestartService systemId={systemId} nodes={node === undefined ? nodes : [node]} kept={kept} />,
      node?.id,
    )
  if (draft === 'import-catalogue') return inKey(<ImportCatalogue kept={kept} />)
  if (draft === 'sign-exception' && finding !== undefined)
    return inKey(
      <IntentForm
        kind={draft}
        title={`Let stand: ${finding.title}`}
        begin={{ findingKey: finding.key, findingTitle: finding.title }}
        kept={kept}
      />,
      finding.key,
    )
  return (
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
      <FindingList records={records} signHref={`/build/network?system=${systemId}&draft=sign-exception&finding=`} />
    </Margin>
  )
}

function PortTable({ nodes, nodePorts, switches, switchPorts, nameAnswers }: RowNetwork) {
  return (
    <>
      <h3>
        Ports <span>{nodePorts.length}</span>
      </h3>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Node</th>
              <th>Port</th>
              <th>Carries</th>
              <th>Address</th>
              <th className="number">VLAN</th>
              <th className="number">MTU</th>
              <th>Far end</th>
              <th>Name</th>
            </tr>
          </thead>
          <tbody>
            {nodePorts.map(port => {
              const node = byId(nodes, port.nodeId)
              const far = byId(switchPorts, port.switchPortId)
              const address = port.storage?.address ?? null
              const trouble =
                node?.hostName == null || address === null ? null : nameTrouble(node.hostName, address, nameAnswers)
              return (
                <tr key={port.id}>
                  <td className="whitespace-nowrap">{node?.name}</td>
                  <td className="whitespace-nowrap">
                    {port.name}, {formatBitsPerSecond(port.speedBitsPerSecond)}
                  </td>
                  <td>
                    {[...(port.storage === null ? [] : ['storage']), ...port.traffic].join(', ') || (
                      <span className="text-faint">nothing</span>
                    )}
                  </td>
                  <td className="mono whitespace-nowrap">
                    {address === null
                      ? port.storage === null
                        ? ''
                        : 'leased'
                      : `${address}/${port.storage?.prefixLength ?? ''}`}
                  </td>
                  <td className="number">{port.storage === null ? '' : (port.storage.vlan ?? '—')}</td>
                  <td className="number">{port.mtu}</td>
                  <td className="whitespace-nowrap">
                    {far === undefined ? (
                      <span className="text-faint">not stated</span>
                    ) : (
                      `${byId(switches, far.switchId)?.name ?? ''} port ${far.name}`
                    )}
                  </td>
                  <td>
                    {typeof trouble === 'string' ? (
                      <span title={trouble} className="whitespace-nowrap">
                        <State gravity="soon">differs</State>
                      </span>
                    ) : trouble === undefined ? (
                      <State gravity="fine">agrees</State>
                    ) : (
                      ''
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </>
  )
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
