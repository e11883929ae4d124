import type { ReactNode } from 'react'
import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { byId, type Snapshot, type System } from '@/core/estate'
import { intents, limitWords, type FieldChoices, type IntentKind } from '@/core/intents'
import type { VolumePage } from '@/core/views'
import { objects } from '@/records/objects'
import { hostGroups, pools, systems } from '@/records/queries'
import { IntentForm, KeyedDraft } from '@/ui/drafts'

/** Where drafts about one volume stand: beside the list, or on the volume's own page. */
const places: readonly (string | undefined)[] = ['/provision?sel={volumeId}', '/provision/volumes/{volumeId}']
/** What can be drafted about one volume. */
export const aboutVolumes = intents.filter(each => places.includes(each.place))

const momentWords = ({ name, takenAt, state }: Snapshot) =>
  `${name}: ${takenAt === null ? 'no moment yet' : `${takenAt.slice(0, 19).replace('T', ' ')} UTC`}${state === 'consistent' ? '' : `, ${state}`}`

type Named = readonly { readonly id: string; readonly name: string }[]
type Option = { readonly value: string; readonly words: string }
const asChoices = (all: Named): Option[] => all.map(({ id, name }) => ({ value: id, words: name }))

/** What a draft about one volume is called: in one word before its name, or in several. */
const titleOf = ({ offer, title }: IntentKind, name: string) =>
  offer === undefined ? `${title}: ${name}` : `${offer.words}${offer.words.includes(' ') ? ':' : ''} ${name}`

/** Pools of the systems to which a system can mirror, by the names of both. */
async function partnerPools({ partners }: System): Promise<Option[]> {
  const { scope } = await reader()
  const far = (await systems(scope)).filter(({ serial }) => partners.includes(serial))
  return (await pools(scope)).flatMap(({ id, name, systemId }) => {
    const on = byId(far, systemId)
    return on === undefined ? [] : [{ value: id, words: `${name} on ${on.name}` }]
  })
}

/** Snapshots and pools that a form asks for, with what may be chosen in their place. */
async function placesOf(
  { kind }: IntentKind,
  asks: ReadonlySet<FieldChoices | undefined>,
  { volume, system }: VolumePage,
) {
  const { scope } = await reader()
  const snapshots = asks.has('snapshots of it')
    ? await objects(scope, 'snapshots', { where: { volumeId: volume.id }, order: [['takenAt', 'DESC']] })
    : []
  const ownPools = asks.has('pools of its system')
    ? (await pools(scope)).filter(each => each.systemId === volume.systemId)
    : []
  return {
    'snapshots of it': [
      // What a clone may be made of without one: what the volume is now.
      ...(kind === 'clone-volume' ? [{ value: '', words: 'what it is now' }] : []),
      ...(kind === 'bring-back-file' ? [{ value: '', words: 'the latest that holds it' }] : []),
      ...snapshots.map(each => ({ value: each.id, words: momentWords(each) })),
    ],
    'pools of its system':
      kind === 'move-volume'
        ? [{ value: '', words: 'left to the class' }, ...asChoices(ownPools.filter(each => each.id !== volume.poolId))]
        : [{ value: '', words: 'that of its source' }, ...asChoices(ownPools)],
    'pools of its partners': asks.has('pools of its partners') ? await partnerPools(system) : [],
  }
}

/** Groups and hosts that a form asks for. @param seeing the groups that see the volume */
async function groupsOf(
  { kind }: IntentKind,
  asks: ReadonlySet<FieldChoices | undefined>,
  groups: Named,
  seeing: Named,
) {
  const { scope } = await reader()
  const classes = asks.has('service classes') ? await objects(scope, 'serviceClasses') : []
  const hosts = asks.has('hosts that see it') ? await objects(scope, 'hosts') : []
  return {
    'service classes': [{ value: '', words: 'as it is now' }, ...asChoices(classes)],
    'host groups':
      kind === 'clone-volume' ? [{ value: '', words: 'none yet' }, ...asChoices(groups)] : asChoices(groups),
    'host groups that see it': asChoices(seeing),
    'hosts that see it': asChoices(
      hosts.filter(each => seeing.some(({ id }) => id === each.hostGroupId) && each.initiators.length > 0),
    ),
    'names of host groups': groups.map(({ name }) => ({ value: name, words: name })),
  }
}

/** With what a form begins: the volume as it is now, and what most would choose. */
function beginningOf({ form, kind }: IntentKind, { volume }: VolumePage, seeing: Named, pool: string | undefined) {
  const asked = (choices: FieldChoices) => form?.fields.find(field => field.choices === choices)
  const ofSeeing = asked('host groups that see it')
  return {
    volumeId: volume.id,
    // What most Linux hosts make where nothing is said.
    ...(kind === 'prepare-volume' ? { fileSystem: 'xfs' } : {}),
    // Leaves most of the drives to hosts.
    ...(form?.fields.some(({ field }) => field === 'ratePercent') === true ? { ratePercent: 30 } : {}),
    ...(kind === 'move-volume' && pool !== undefined ? { poolId: pool } : {}),
    // What it is not yet.
    ...(kind === 'convert-volume' ? { isThin: !volume.isThin } : {}),
    ...(kind === 'limit-volume' ? limitWords(volume.limits) : {}),
    // There is nothing to choose where only one sees it.
    ...(ofSeeing !== undefined && seeing.length === 1 ? { [ofSeeing.field]: seeing[0]?.id } : {}),
  }
}

/** The form of whatever can be drafted about a volume. */
export async function volumeDraft(
  kind: string,
  change: string | undefined,
  page: VolumePage,
  pool: string | undefined,
): Promise<ReactNode> {
  const drafted: IntentKind | undefined = aboutVolumes.find(each => each.kind === kind)
  if (drafted === undefined) return undefined
  const { volume, mappings } = page
  const groups = await hostGroups((await reader()).scope)
  const seeing = groups.filter(group => mappings.some(mapping => mapping.hostGroupId === group.id))
  const asks = new Set(drafted.form?.fields.map(field => field.choices))
  return (
    <KeyedDraft id={change} of={volume.id}>
      <IntentForm
        kind={kind}
        title={titleOf(drafted, volume.name)}
        begin={beginningOf(drafted, page, seeing, pool)}
        name={volume.name}
        choices={{ ...(await placesOf(drafted, asks, page)), ...(await groupsOf(drafted, asks, groups, seeing)) }}
        kept={await keptDraft(change, kind)}
      />
    </KeyedDraft>
  )
}
