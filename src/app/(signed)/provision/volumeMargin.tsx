import { Link } from '@/ui/parts/Link'
import type { ReactNode } from 'react'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { choicesFor } from '@/app/server/choices'
import { reader } from '@/app/server/guard'
import { draftsBelow, keptDraft } from '@/app/server/keptDraft'
import { byId } from '@/core/estate'
import { isUuid } from '@/core/input'
import { changeStates } from '@/core/plan'
import { blankIntent, draftAddress, intents, isDrawn } from '@/core/intents'
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
import { aboutVolumes, volumeDraft } from './volumeDraft'

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

/** What is drafted about several at once. */
const aboutSeveral = intents.filter(
  each => each.place === '/provision' && !isDrawn(each) && each.kind !== 'provision-volume',
)

/** What is offered beside a volume as it is now. */
function offeredFor({ volume, mappings, system }: VolumePage) {
  const state: Readonly<Record<string, unknown>> = {
    ...volume,
    isMapped: mappings.length > 0,
    isClone: volume.cloneOfId !== null,
    takesLimits: volume.limits !== null,
    hasPartners: system.partners.length > 0,
    isMirrored: volume.mirror !== null,
    isSource: volume.mirror?.role === 'source',
    hasBrokenMirror: volume.mirror?.role === 'source' && volume.mirror.state === 'broken',
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
