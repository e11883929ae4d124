import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { choicesFor } from '@/app/server/choices'
import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { onlyTexts } from '@/app/server/onlyTexts'
import type { ServiceClass } from '@/core/estate'
import { blankIntent, defineClassIntent, draftAddress, removeClassIntent } from '@/core/intents'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { changesAbout } from '@/records/changes'
import { object } from '@/records/objects'
import { classUses, type ClassUse } from '@/records/queries'
import { ChangeLines } from '@/ui/changes'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Facts } from '@/ui/parts/Facts'
import { ClassTable, KeptBars, keptInWords } from '@/ui/provision/classes'
import { provisionParts } from '../parts'

export const metadata = { title: 'Service classes' }
type Search = Readonly<Partial<Record<'draft' | 'change' | 'sel', string>>>

export default async function Page({ searchParams }: { readonly searchParams: Promise<Search> }) {
  const search = await onlyTexts(searchParams)
  const { scope } = await reader()
  const uses = await classUses(scope)
  const under = uses.reduce((sum, { volumes }) => sum + volumes, 0)
  return (
    <Frame margin={await classMargin(search, uses)}>
      <Title words="Service classes">
        <SubSections of={provisionParts} />
      </Title>
      <p className="sentence">
        <b>
          {uses.length === 0
            ? 'No service class has been defined yet.'
            : `${countAtStart(uses.length, 'service class', 'service classes')}.`}
        </b>{' '}
        {uses.length === 0
          ? 'A class is a named set of promises: what a volume survives, how fast it answers, which of its moments are kept.'
          : underWords(under, uses)}
      </p>
      {uses.length > 0 && (
        <ClassTable
          rows={uses.map(({ serviceClass, volumes, sizeBytes }) => ({ serviceClass, volumes, size: `${sizeBytes}` }))}
          selected={search.sel}
        />
      )}
      {under > 0 && (
        <KeptBars
          classes={uses.map(({ serviceClass: { id, name }, volumes, promises }) => ({ id, name, volumes, promises }))}
        />
      )}
    </Frame>
  )
}

/** How many volumes stand under classes, and how many promises are broken. */
function underWords(under: number, uses: readonly ClassUse[]): string {
  const broken = uses.flatMap(({ promises }) => promises).reduce((sum, { counts }) => sum + counts.broken, 0)
  const stand = countAtStart(under, 'volume stands', 'volumes stand')
  return broken === 0
    ? `${stand} under them, and no promise that is measured is broken.`
    : `${stand} under them; ${countWords(broken, 'promise is', 'promises are')} broken.`
}

/** What is drafted, the class that is selected, or what a class is. */
async function classMargin({ draft, change, sel }: Search, uses: readonly ClassUse[]) {
  const selected = uses.find(each => each.serviceClass.id === sel)
  if (draft === defineClassIntent.kind)
    return (
      <KeyedDraft id={change} of={sel ?? 'new'}>
        <IntentForm
          kind={draft}
          title={selected === undefined ? defineClassIntent.title : `Alter ${selected.serviceClass.name}`}
          begin={selected === undefined ? newClass : intentOf(selected.serviceClass)}
          choices={await choicesFor(defineClassIntent)}
          kept={await keptDraft(change, draft)}
        />
      </KeyedDraft>
    )
  if (draft === removeClassIntent.kind && selected !== undefined)
    return (
      <KeyedDraft id={change} of={sel ?? ''}>
        <IntentForm
          kind={draft}
          title={`Remove ${selected.serviceClass.name}`}
          begin={{ classId: selected.serviceClass.id }}
          kept={await keptDraft(change, draft)}
        />
      </KeyedDraft>
    )
  return selected === undefined ? <Unselected uses={uses} /> : <Selected use={selected} />
}

/** A new class keeps what most would: a day of hours, a month of days. */
const newClass: Readonly<Record<string, unknown>> = {
  ...blankIntent(defineClassIntent),
  lossesSurvived: 2,
  media: 'any',
  headroomPercent: 10,
  snapshotRule: 'FREQ=HOURLY',
  timeZone: 'UTC',
  hourly: 24,
  daily: 30,
}

const intentOf = ({
  id,
  headroomRatio,
  snapshotRule,
  retention,
  quietHours,
  revision: _,
  ...kept
}: ServiceClass): Readonly<Record<string, unknown>> => ({
  ...blankIntent(defineClassIntent),
  ...retention,
  ...kept,
  classId: id,
  headroomPercent: headroomRatio === null ? null : Math.round(headroomRatio * 100),
  snapshotRule: snapshotRule ?? '',
  defaultGroupId: kept.defaultGroupId ?? '',
  quietFrom: quietHours?.from ?? null,
  quietTo: quietHours?.to ?? null,
})

const Unselected = ({ uses }: { readonly uses: readonly ClassUse[] }) => (
  <Margin foot={<NewDraft href={draftAddress(defineClassIntent, {}) ?? ''}>{defineClassIntent.title}</NewDraft>}>
    <h2>About classes</h2>
    <p className="mt-0">
      A volume that is drafted under a class finds its pool by itself, and carries the class&rsquo;s promises from then
      on, each with the measurement behind it. Snapshots are taken as the class says, and go when none of its rules
      needs them.
    </p>
    {uses.length > 0 && (
      <p className="text-second">A class that is chosen shows what it promises here, and can be altered.</p>
    )}
  </Margin>
)

const copyWords = (minutes: number) => (minutes === 0 ? 'that loses nothing' : `at most ${minutes} minutes old`)

/** What a class promises, without what it leaves open. */
function promisedLines(serviceClass: ClassUse['serviceClass'], groupName: string | null) {
  const { lossesSurvived, media, latencyMilliseconds, headroomRatio, copyWithinMinutes } = serviceClass
  const { snapshotRule, timeZone, holdingDays, quietHours } = serviceClass
  const line = (label: string, value: string | null) => (value === null ? [] : [[label, value] as const])
  return [
    ...line('Survives', lossesSurvived === null ? null : countWords(lossesSurvived, 'loss', 'losses')),
    ...line('Media', media),
    ...line('95 of 100 minutes within', latencyMilliseconds === null ? null : `${latencyMilliseconds} ms`),
    ...line('Of the pool stays free', headroomRatio === null ? null : `${Math.round(headroomRatio * 100)}%`),
    ...line('A copy elsewhere', copyWithinMinutes === null ? null : copyWords(copyWithinMinutes)),
    ...line('Seen by, else', groupName),
    ...line('Snapshots by', snapshotRule),
    ...line('In', snapshotRule === null ? null : timeZone),
    ...line('None', quietHours === null ? null : `from ${quietHours.from} to ${quietHours.to} o’clock`),
    ...line('Keeps', keptInWords(serviceClass)),
    ...line('Can be brought back for', holdingDays === null ? null : `${holdingDays} days`),
  ]
}

async function Selected({ use: { serviceClass, volumes, sizeBytes } }: { readonly use: ClassUse }) {
  const { scope } = await reader()
  const { id, name, defaultGroupId } = serviceClass
  const group = defaultGroupId === null ? undefined : await object(scope, 'hostGroups', defaultGroupId)
  return (
    <Margin
      foot={
        <>
          <Link className="button" href={`/provision/classes?sel=${id}&draft=define-class`} scroll={false}>
            Alter
          </Link>
          <Link className="button quiet" href={`/provision/classes?sel=${id}&draft=remove-class`} scroll={false}>
            Remove
          </Link>
        </>
      }
    >
      <h2 className="pr-12 break-words">{name}</h2>
      <div className="text-second">
        {countAtStart(volumes, 'volume', 'volumes')} under it, {formatBytes(sizeBytes)}
      </div>
      <h3>What it promises</h3>
      <Facts of={promisedLines(serviceClass, group?.name ?? null)} />
      <h3>Changes</h3>
      <ChangeLines changes={await changesAbout(scope, id, 8)} none="None has been made yet." />
    </Margin>
  )
}
