import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { suggestedRole } from '@/core/clusters'
import { intakeState, kindWords, suffixOf, type Drive } from '@/core/estate'
import { isUuid } from '@/core/input'
import { formatBytes } from '@/core/units'
import type { ShownChange, DriveCount } from '@/core/views'
import { driveById, drives as drivesOf } from '@/records/queries'
import { EraseDrive, IntakeMargin, SetLocateLight } from '@/ui/build/intake'
import { KeyedDraft } from '@/ui/drafts'
import { Margin } from '@/ui/frame'
import { Facts } from '@/ui/parts/Facts'
import { State } from '@/ui/parts/State'

type Params = Readonly<Partial<Record<'drive' | 'draft' | 'change', string>>>

/** The drive that is selected, what is drafted about it, or what matters of all of them. */
export async function driveMargin({ drive: id, draft, change }: Params, counts: readonly DriveCount[]) {
  const { scope } = await reader()
  const found = id === undefined || !isUuid(id) ? undefined : await driveById(scope, id)
  if (found === undefined) return <IntakeMargin counts={counts} />
  const { drive } = found
  if (draft !== 'erase-drive' && draft !== 'set-locate-light') return <DriveMargin {...found} />
  const kept = await keptDraft(change, draft)
  return (
    <KeyedDraft id={change} of={`${draft}/${drive.id}`}>
      {draft === 'erase-drive' ? (
        <EraseDrive drive={drive} kept={kept} />
      ) : (
        <SetLocateLight drives={await lightDrives(drive, kept)} kept={kept} />
      )}
    </KeyedDraft>
  )
}

/** The drives whose lights a draft is about: those that it was begun with. */
async function lightDrives(drive: Drive, kept: ShownChange | undefined): Promise<readonly Drive[]> {
  const ids = kept?.intent['driveIds']
  if (!Array.isArray(ids)) return [drive]
  const { scope } = await reader()
  return (await drivesOf(scope, drive.systemId)).filter(each => ids.includes(each.id))
}

type Found = NonNullable<Awaited<ReturnType<typeof driveById>>>

function DriveMargin({ drive, system, node, beside }: Found) {
  const state = intakeState(drive)
  const isFree = state === 'foreign' || state === 'unassigned'
  const base = `/build/drives?drive=${drive.id}`
  return (
    <Margin
      foot={
        <>
          {isFree && <NewDraft href={`${base}&draft=erase-drive`}>Erase</NewDraft>}
          <Link className="button quiet" href={`${base}&draft=set-locate-light`}>
            Light {drive.isLit ? 'off' : 'on'}
          </Link>
          <Link className="button quiet" href={`/build/systems/${drive.systemId}?drive=${drive.id}`}>
            Its system
          </Link>
        </>
      }
    >
      <h2>Drive {suffixOf(drive.serial)}</h2>
      <State gravity={state === 'failed' ? 'now' : state === 'failing' || state === 'foreign' ? 'soon' : 'fine'}>
        {state}
        {drive.isLit ? ', light on' : ''}
      </State>
      <Facts
        of={[
          ['Where', `${system}${node === null ? '' : `, ${node}`}, bay ${drive.bay}`],
          ['Kind', `${kindWords(drive)}, ${drive.model}`],
          ['Size', formatBytes(drive.capacityBytes)],
          ['Serial number', drive.serial],
          ['Firmware', drive.firmware ?? 'not stated'],
          ['Full writes a day', drive.driveWritesPerDay === null ? 'not stated' : `${drive.driveWritesPerDay}`],
          ['Hours', drive.powerOnHours === null ? 'not stated' : drive.powerOnHours.toLocaleString('en')],
        ]}
      />
      {drive.leftOver !== null && <LeftOver of={drive.leftOver} />}
      {beside !== null && !drive.isBoot && <BestFor drive={drive} beside={beside} />}
    </Margin>
  )
}

const LeftOver = ({ of: { system, lastUsedAt, partitions } }: { readonly of: NonNullable<Drive['leftOver']> }) => (
  <>
    <h3>Left over from earlier use</h3>
    <p className="mt-0">
      From {system ?? 'an unknown system'}
      {lastUsedAt === null ? '' : `, last used ${lastUsedAt.slice(0, 10)}`}:
    </p>
    <ul className="m-0 list-disc pl-4">
      {partitions.map(each => (
        <li key={each}>{each}</li>
      ))}
    </ul>
  </>
)

function BestFor({ drive, beside }: { readonly drive: Drive; readonly beside: NonNullable<Found['beside']> }) {
  const { role, why } = suggestedRole(drive, beside)
  return (
    <>
      <h3>Best for</h3>
      <p className="mt-0">
        <b>{role === 'cache' ? 'Cache' : 'Capacity'}.</b> {why}
      </p>
    </>
  )
}
