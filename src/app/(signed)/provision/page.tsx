import Link from 'next/link'
import type { ReactNode } from 'react'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { onlyTexts } from '@/app/server/onlyTexts'
import { draftsBelow, keptDraft } from '@/app/server/keptDraft'
import { byId } from '@/core/estate'
import { linuxCommands } from '@/core/hosts'
import { intents } from '@/core/intents'
import { volumeSorts, type VolumePage } from '@/core/views'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { hostGroups, pools, systems, volumeList, volumePage } from '@/records/queries'
import { ChangeState, HostCommands, LeftDrafts } from '@/ui/changes'
import type { ChangeState as ChangeStateName } from '@/core/plan'
import { IntentForm, KeyedDraft, ProvisionVolume } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'
import { Bytes } from '@/ui/parts/Bytes'
import { Copied } from '@/ui/parts/Copied'
import { State } from '@/ui/parts/State'
import { PoolRoom } from '@/ui/provision/pools'
import { VolumeTable } from '@/ui/provision/volumes'
import { provisionParts } from './parts'

export const metadata = { title: 'Provision' }

type Search = {
  readonly draft?: string
  readonly change?: string
  readonly sel?: string
  readonly pool?: string
  readonly filter?: string
  readonly sort?: string
  readonly descending?: string
  readonly state?: string
  readonly poolId?: string
}

export default async function Page({ searchParams }: { readonly searchParams: Promise<Search> }) {
  const search = await onlyTexts(searchParams)
  const { scope } = await reader()
  const sort = volumeSorts.find(each => each === search.sort)
  const state = (['in use', 'holding'] as const).find(each => each === search.state)
  const isPoolId = search.poolId !== undefined && isUuid(search.poolId)
  const first = await volumeList(scope, {
    filter: (search.filter ?? '').slice(0, 120),
    isDescending: search.descending === 'true',
    limit: 200,
    ...(sort === undefined ? {} : { sort }),
    ...(state === undefined ? {} : { state }),
    ...(isPoolId ? { poolId: search.poolId ?? '' } : {}),
  })
  const allPools = await pools(scope)
  const question = new URLSearchParams(
    Object.entries({
      filter: search.filter,
      sort,
      descending: search.descending,
      state,
      poolId: isPoolId ? search.poolId : undefined,
    }).flatMap(([name, value]) => (value === undefined || value === '' ? [] : [[name, value]])),
  )
  return (
    <Frame margin={await marginFor(search)}>
      <Title words="Provision">
        <SubSections of={provisionParts} />
      </Title>
      <p className="sentence">
        <b>
          {first.total === 0
            ? search.filter === undefined && state === undefined
              ? 'No volume has been provisioned yet.'
              : 'No volume is so.'
            : `${countAtStart(first.total, 'volume', 'volumes')}.`}
        </b>{' '}
        {allPools.length === 0
          ? 'Build a pool first: volumes come from it.'
          : `They come from ${countWords(allPools.length, 'pool', 'pools')}.`}
      </p>
      <VolumeTable
        first={first}
        question={question.toString()}
        selected={search.sel}
        pools={allPools.map(({ id, name }) => ({ id, name }))}
      />
    </Frame>
  )
}

async function marginFor({ draft, change, sel, pool }: Search): Promise<ReactNode> {
  const { scope } = await reader()
  const page = sel !== undefined && isUuid(sel) ? await volumePage(scope, sel) : undefined
  if (draft === 'provision-volume') {
    const [allPools, allSystems, groups, kept] = await Promise.all([
      pools(scope),
      systems(scope),
      hostGroups(scope),
      keptDraft(change, draft),
    ])
    const named = allPools.map(each => ({ ...each, systemName: byId(allSystems, each.systemId)?.name ?? '' }))
    return (
      <KeyedDraft id={change}>
        <ProvisionVolume pools={named} groups={groups} kept={kept} poolId={pool} />
      </KeyedDraft>
    )
  }
  if (page !== undefined && draft !== undefined) {
    const form = await volumeDraft(draft, change, page)
    if (form !== undefined) return form
  }
  return page === undefined ? <ProvisionMargin /> : <VolumeMargin page={page} />
}

/** Where a draft about one volume stands. */
const place = '/provision?sel={volumeId}'
const aboutVolumes = intents.filter(each => each.place === place)

/** The form of whatever can be drafted about a volume. */
async function volumeDraft(
  kind: string,
  change: string | undefined,
  { volume, mappings }: VolumePage,
): Promise<ReactNode> {
  const drafted = aboutVolumes.find(each => each.kind === kind)
  if (drafted === undefined) return undefined
  const { scope } = await reader()
  const groups = await hostGroups(scope)
  const seeing = groups.filter(group => mappings.some(mapping => mapping.hostGroupId === group.id))
  const asChoices = (all: typeof groups) => all.map(({ id, name }) => ({ value: id, words: name }))
  const isOfSeeing = drafted.form?.fields.find(field => field.choices === 'host groups that see it')
  return (
    <KeyedDraft id={change} of={volume.id}>
      <IntentForm
        kind={kind}
        title={`${drafted.offer?.words ?? drafted.title} ${volume.name}`}
        begin={{
          volumeId: volume.id,
          // There is nothing to choose where only one sees it.
          ...(isOfSeeing !== undefined && seeing.length === 1 ? { [isOfSeeing.field]: seeing[0]?.id } : {}),
        }}
        name={volume.name}
        choices={{
          'host groups': asChoices(groups),
          'host groups that see it': asChoices(seeing),
          'names of host groups': groups.map(({ name }) => ({ value: name, words: name })),
        }}
        kept={await keptDraft(change, kind)}
      />
    </KeyedDraft>
  )
}

/** What matters for volumes while none is selected. */
async function ProvisionMargin() {
  const { scope } = await reader()
  const held = await volumeList(scope, { state: 'holding', limit: 5 })
  return (
    <Margin foot={<NewDraft href="/provision?draft=provision-volume">Provision a volume</NewDraft>}>
      <h2>Room and drafts</h2>
      <PoolRoom pools={await pools(scope)} />
      <LeftDrafts drafts={await draftsBelow('/provision')} />
      {held.total > 0 && (
        <>
          <h3>
            In holding <span>{countWords(held.total, 'volume', 'volumes')} can be brought back</span>
          </h3>
          {held.items.map(line => (
            <div key={line.id} className="flex justify-between gap-3 border-b border-rule-fine py-[5px]">
              <Link className="min-w-0 truncate no-underline" href={`/provision?sel=${line.id}`} scroll={false}>
                {line.name}
              </Link>
              <Bytes bytes={line.writtenBytes} />
            </div>
          ))}
        </>
      )}
    </Margin>
  )
}

function VolumeMargin({ page }: { readonly page: VolumePage }) {
  const { volume, pool, system, mappings, changes, targets, missingSince } = page
  const state: Readonly<Record<string, unknown>> = { ...volume, isMapped: mappings.length > 0 }
  const offered = aboutVolumes.flatMap(({ kind, offer }) =>
    offer !== undefined && Object.entries(offer.when).every(([field, is]) => state[field] === is)
      ? [{ kind, words: offer.words }]
      : [],
  )
  return (
    <Margin
      foot={offered.map(({ kind, words }) => (
        <Link key={kind} className="button quiet" href={`/provision?sel=${volume.id}&draft=${kind}`} scroll={false}>
          {words}
        </Link>
      ))}
    >
      <h2 className="pr-12 break-words">{volume.name}</h2>
      <div className="text-second">
        from{' '}
        <Link className="textlink" href={`/build/pools?sel=${pool.id}`}>
          {pool.name}
        </Link>{' '}
        on{' '}
        <Link className="textlink" href={`/build/systems/${system.id}`}>
          {system.name}
        </Link>
        , {volume.isThin ? 'thin' : 'thick'}
      </div>
      <div className="mt-1">
        {missingSince !== null ? (
          <State gravity="now">
            its system has not stated it since <Ago at={missingSince} />
          </State>
        ) : volume.state === 'in use' ? (
          <State gravity="fine">in use</State>
        ) : (
          <State gravity="soon">
            in holding until {volume.holdingUntil?.slice(0, 16).replace('T', ' ')} by the systems’ clock
          </State>
        )}
      </div>
      <h3>Space</h3>
      <table className="plain">
        <tbody>
          <tr>
            <td className="text-second">Size</td>
            <td className="number">
              <Bytes bytes={volume.sizeBytes} /> = {formatBytes(volume.sizeBytes, 'decimal')}
            </td>
          </tr>
          <tr>
            <td className="text-second">Written</td>
            <td className="number">
              <Bytes bytes={volume.writtenBytes} />
            </td>
          </tr>
          <tr>
            <td className="text-second">WWN</td>
            <td className="number">
              <Copied text={volume.naa} />
            </td>
          </tr>
        </tbody>
      </table>
      <h3>Seen by</h3>
      {mappings.length === 0 && <p className="mt-0 text-second">Nobody: it is mapped to no host group.</p>}
      {mappings.map(mapping => (
        <div key={mapping.id} className="flex justify-between py-[2px]">
          <span>{mapping.groupName}</span>
          <span className="mono">LUN {mapping.lun}</span>
        </div>
      ))}
      {mappings.length > 0 && (
        <HostCommands commands={linuxCommands({ name: volume.name, naa: volume.naa, targets })} />
      )}
      <h3>Changes</h3>
      {changes.map(change => (
        <div key={change.id} className="flex justify-between gap-3 py-[2px]">
          <Link className="min-w-0 truncate no-underline" href={`/changes/${change.id}`}>
            {change.title}
          </Link>
          <span className="shrink-0 text-sm text-second">
            <ChangeState state={change.state as ChangeStateName} /> <Ago at={change.at} />
          </span>
        </div>
      ))}
    </Margin>
  )
}
