import Link from 'next/link'
import type { ReactNode } from 'react'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { choicesFor } from '@/app/server/choices'
import { reader } from '@/app/server/guard'
import { draftsBelow, keptDraft } from '@/app/server/keptDraft'
import { byId, type Snapshot } from '@/core/estate'
import { isUuid } from '@/core/input'
import { changeStates } from '@/core/plan'
import { blankIntent, draftAddress, intents, isDrawn, limitWords } from '@/core/intents'
import { countWords } from '@/core/units'
import type { VolumePage } from '@/core/views'
import { hostGroups, pools, systems, volumeList, volumePage } from '@/records/queries'
import { changeLines } from '@/records/changes'
import { objects } from '@/records/objects'
import { ChangeLines, LeftDrafts } from '@/ui/changes'
import { IntentForm, KeyedDraft, ProvisionVolume } from '@/ui/drafts'
import { Margin } from '@/ui/frame'
import { Bytes } from '@/ui/parts/Bytes'
import { VolumeMargin } from '@/ui/provision/volumes'

interface Asked {
  readonly draft?: string
  readonly change?: string
  readonly sel?: string
  readonly pool?: string
  readonly isOwnPage?: boolean
}

interface NewVolumeProps {
  readonly change: string | undefined
  readonly pool: string | undefined
}

/** The form for a volume that is not there yet. */
async function NewVolume({ change, pool }: NewVolumeProps) {
  const { scope } = await reader()
  const [allPools, allSystems, groups, classes, kept] = await Promise.all([
    pools(scope),
    systems(scope),
    hostGroups(scope),
    objects(scope, 'serviceClasses'),
    keptDraft(change, 'provision-volume'),
  ])
  const named = allPools.map(each => ({ ...each, systemName: byId(allSystems, each.systemId)?.name ?? '' }))
  return (
    <KeyedDraft id={change}>
      <ProvisionVolume pools={named} groups={groups} classes={classes} kept={kept} poolId={pool} />
    </KeyedDraft>
  )
}

/** The volume that is selected, what is drafted, or what matters of all volumes. */
export async function volumeMargin({ draft, change, sel, pool, isOwnPage = false }: Asked): Promise<ReactNode> {
  const { scope } = await reader()
  const page = sel !== undefined && isUuid(sel) ? await volumePage(scope, sel) : undefined
  if (draft === 'provision-volume') return <NewVolume change={change} pool={pool} />
  const together = aboutSeveral.find(each => each.kind === draft)
  if (together !== undefined)
    return (
      <KeyedDraft id={change}>
        <IntentForm
          kind={together.kind}
          title={together.title}
          begin={
            together.kind === 'provision-volumes' ? { ...blankIntent(together), isThin: true } : blankIntent(together)
          }
          choices={await choicesFor(together)}
          kept={await keptDraft(change, together.kind)}
        />
      </KeyedDraft>
    )
  if (page !== undefined && draft !== undefined) {
    const form = await volumeDraft(draft, change, page, pool)
    if (form !== undefined) return form
  }
  return page === undefined ? (
    <ProvisionMargin />
  ) : (
    <VolumeMargin page={page} offered={offeredFor(page)} isOwnPage={isOwnPage} />
  )
}

/** Where drafts about one volume stand: beside the list, or on the volume's own page. */
const places: readonly (string | undefined)[] = ['/provision?sel={volumeId}', '/provision/volumes/{volumeId}']
/** What is drafted about several at once. */
const aboutSeveral = intents.filter(
  each => each.place === '/provision' && !isDrawn(each) && each.kind !== 'provision-volume',
)
const aboutVolumes = intents.filter(each => places.includes(each.place))

const momentWords = ({ name, takenAt, state }: Snapshot) =>
  `${name}: ${takenAt === null ? 'no moment yet' : `${takenAt.slice(0, 19).replace('T', ' ')} UTC`}${state === 'consistent' ? '' : `, ${state}`}`

/** What is offered beside a volume as it is now. */
function offeredFor({ volume, mappings }: VolumePage) {
  const state: Readonly<Record<string, unknown>> = {
    ...volume,
    isMapped: mappings.length > 0,
    isClone: volume.cloneOfId !== null,
    takesLimits: volume.limits !== null,
  }
  return aboutVolumes.flatMap(each =>
    each.offer !== undefined && Object.entries(each.offer.when).every(([field, is]) => state[field] === is)
      ? [
          {
            kind: each.kind,
            words: each.offer.words,
            href: draftAddress(each, { volumeId: volume.id }) ?? '',
            isRare: each.offer.isRare === true,
          },
        ]
      : [],
  )
}

/** The form of whatever can be drafted about a volume. */
async function volumeDraft(
  kind: string,
  change: string | undefined,
  { volume, mappings }: VolumePage,
  pool: string | undefined,
): Promise<ReactNode> {
  const drafted = aboutVolumes.find(each => each.kind === kind)
  if (drafted === undefined) return undefined
  const { scope } = await reader()
  const groups = await hostGroups(scope)
  const asks = new Set(drafted.form?.fields.map(field => field.choices))
  const snapshots = asks.has('snapshots of it')
    ? await objects(scope, 'snapshots', { where: { volumeId: volume.id }, order: [['takenAt', 'DESC']] })
    : []
  const ownPools = asks.has('pools of its system')
    ? (await pools(scope)).filter(each => each.systemId === volume.systemId)
    : []
  const classes = asks.has('service classes') ? await objects(scope, 'serviceClasses') : []
  const allHosts = asks.has('hosts that see it') ? await objects(scope, 'hosts') : []
  const seeing = groups.filter(group => mappings.some(mapping => mapping.hostGroupId === group.id))
  const asChoices = (all: readonly { readonly id: string; readonly name: string }[]) =>
    all.map(({ id, name }) => ({ value: id, words: name }))
  const isOfSeeing = drafted.form?.fields.find(field => field.choices === 'host groups that see it')
  return (
    <KeyedDraft id={change} of={volume.id}>
      <IntentForm
        kind={kind}
        title={
          drafted.offer === undefined ? `${drafted.title}: ${volume.name}` : `${drafted.offer.words} ${volume.name}`
        }
        begin={{
          volumeId: volume.id,
          // What most Linux hosts make where nothing is said.
          ...(kind === 'prepare-volume' ? { fileSystem: 'xfs' } : {}),
          // Leaves most of the drives to hosts.
          ...(kind === 'move-volume' ? { ratePercent: 30, ...(pool === undefined ? {} : { poolId: pool }) } : {}),
          // What it is not yet.
          ...(kind === 'convert-volume' ? { isThin: !volume.isThin } : {}),
          ...(kind === 'limit-volume' ? limitWords(volume.limits) : {}),
          // There is nothing to choose where only one sees it.
          ...(isOfSeeing !== undefined && seeing.length === 1 ? { [isOfSeeing.field]: seeing[0]?.id } : {}),
        }}
        name={volume.name}
        choices={{
          'snapshots of it': [
            // What a clone may be made of without one: what the volume is now.
            ...(kind === 'clone-volume' ? [{ value: '', words: 'what it is now' }] : []),
            ...(kind === 'bring-back-file' ? [{ value: '', words: 'the latest that holds it' }] : []),
            ...snapshots.map(each => ({ value: each.id, words: momentWords(each) })),
          ],
          'pools of its system':
            kind === 'move-volume'
              ? [
                  { value: '', words: 'left to the class' },
                  ...asChoices(ownPools.filter(each => each.id !== volume.poolId)),
                ]
              : [{ value: '', words: 'that of its source' }, ...asChoices(ownPools)],
          'service classes': [{ value: '', words: 'as it is now' }, ...asChoices(classes)],
          'host groups':
            kind === 'clone-volume' ? [{ value: '', words: 'none yet' }, ...asChoices(groups)] : asChoices(groups),
          'host groups that see it': asChoices(seeing),
          'hosts that see it': asChoices(
            allHosts.filter(each => seeing.some(({ id }) => id === each.hostGroupId) && each.initiators.length > 0),
          ),
          'names of host groups': groups.map(({ name }) => ({ value: name, words: name })),
        }}
        kept={await keptDraft(change, kind)}
      />
    </KeyedDraft>
  )
}

const latestShown = 8
/** Drafts stand by themselves. */
const carriedOut = changeStates.filter(state => state !== 'draft' && state !== 'checked')
const kindsHere = intents.filter(each => each.place?.startsWith('/provision') === true).map(({ kind }) => kind)

/** What matters for volumes while none is selected. */
async function ProvisionMargin() {
  const { scope } = await reader()
  return (
    <Margin
      foot={
        <>
          <NewDraft href="/provision?draft=provision-volume">Provision a volume</NewDraft>
          <Link className="button quiet" href="/provision?draft=provision-volumes" scroll={false}>
            Several
          </Link>
        </>
      }
    >
      <h2>Lately and in holding</h2>
      <LeftDrafts drafts={await draftsBelow('/provision')} />
      <h3>
        Latest changes <span>to volumes and hosts</span>
      </h3>
      <ChangeLines
        changes={await changeLines(scope, latestShown, { kind: kindsHere, state: carriedOut })}
        none="Nothing has been changed yet."
      />
      <Held />
    </Margin>
  )
}

/** Volumes that can still be brought back. */
async function Held() {
  const { scope } = await reader()
  const held = await volumeList(scope, { state: 'holding', limit: 5 })
  return held.total === 0 ? null : (
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
  )
}
