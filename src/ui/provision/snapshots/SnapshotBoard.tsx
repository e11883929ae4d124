'use client'
import { useMemo, useState, type ReactNode } from 'react'
import { spaceOf, type Judged } from '@/core/snapshots'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { BulkBar } from '../../drafts/BulkBar'
import { Copied } from '../../parts/Copied'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { keptInWords } from './snapshotColumns'
import { snapshotDrafts } from './snapshotDrafts'
import { SnapshotRules } from './SnapshotRules'

interface SnapshotBoardProps {
  readonly volumeId: string
  readonly all: readonly Judged[]
  readonly timeZone: string
}

/** What is chosen of a volume's snapshots, and which is in focus; those that have gone are no longer chosen. */
function useChosenSnapshots(all: readonly Judged[]) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [focused, focus] = useState<string>()
  // A run begins where one was chosen last, not where the focus is: a press has moved that already.
  const [anchor, setAnchor] = useState<string>()
  const present = useMemo(() => new Set(all.map(({ snapshot }) => snapshot.id)), [all])
  const kept = useMemo(() => new Set([...chosen].filter(id => present.has(id))), [chosen, present])
  const choose = (id: string, isRun: boolean) => {
    const from = anchor ?? focused
    if (!isRun || from === undefined) {
      const next = new Set(kept)
      if (!next.delete(id)) next.add(id)
      setAnchor(id)
      return setChosen(next)
    }
    const places = [id, from].map(each => all.findIndex(({ snapshot }) => snapshot.id === each)).sort((a, b) => a - b)
    const run = all.slice(Math.max(0, places[0] ?? 0), (places[1] ?? 0) + 1)
    setChosen(new Set([...kept, ...run.map(({ snapshot }) => snapshot.id)]))
  }
  return { chosen: kept, focused, choose, focus }
}

/** A volume's snapshots: which rule keeps each, what those that are chosen would give back, and what can be done with them. */
export function SnapshotBoard({ volumeId, all, timeZone }: SnapshotBoardProps) {
  const { chosen, focused, choose, focus } = useChosenSnapshots(all)
  const chosenOnes = all.filter(({ snapshot }) => chosen.has(snapshot.id))
  const shown = all.find(({ snapshot }) => snapshot.id === focused) ?? chosenOnes.at(-1) ?? all.at(-1)
  const drafts = snapshotDrafts(
    volumeId,
    chosenOnes.map(({ snapshot }) => snapshot),
  )
  return (
    <figure className="m-0">
      <h3>
        Which rule keeps which snapshot <span>oldest at the left · a note on every rule that needs it</span>
      </h3>
      <SnapshotRules {...{ all, timeZone, chosen, focused, choose, focus }} />
      <div className="flex flex-wrap items-center gap-2 py-1">
        <span className="text-sm text-second">
          Click chooses one, <kbd className="opacity-100">Shift</kbd> a run; arrow keys move,{' '}
          <kbd className="opacity-100">Space</kbd> chooses.
        </span>
        <BulkBar words={chosenWords(chosenOnes)} drafts={drafts} />
      </div>
      <div className="grid grid-cols-2 gap-6 max-md:grid-cols-1">
        {shown !== undefined && <InFocus judged={shown} />}
        <GivenBack all={all} chosen={chosen} />
      </div>
    </figure>
  )
}

const chosenWords = (chosen: readonly Judged[]) =>
  chosen.length === 0 ? '' : `${countAtStart(chosen.length, 'snapshot', 'snapshots')} chosen`

const gravity = { consistent: 'fine', pending: 'note', failed: 'now' } as const

function InFocus({ judged }: { readonly judged: Judged }) {
  const { snapshot } = judged
  const isPending = snapshot.state === 'pending'
  const lines: readonly (readonly [string, ReactNode])[] = [
    ['Moment', snapshot.takenAt === null ? 'not stated yet' : <Moment key="moment" at={snapshot.takenAt} />],
    [
      'State',
      <State key="state" gravity={gravity[snapshot.state]}>
        {isPending ? 'pending: what was acknowledged is still reaching the drives' : snapshot.state}
      </State>,
    ],
    ['Kept by', keptInWords(judged)],
    ['Taken for', snapshot.reason ?? 'no reason was given'],
    [
      'Own space',
      <span
        key="own"
        className="mono"
      >{`${formatBytes(snapshot.ownBytes)} of ${formatBytes(snapshot.sizeBytes)}`}</span>,
    ],
    ['WWN', <Copied key="wwn" text={snapshot.naa} />],
  ]
  return (
    <div>
      <h3>
        In focus <span className="min-w-0 truncate">{snapshot.name}</span>
      </h3>
      <table className="plain">
        <tbody>
          {lines.map(([name, value]) => (
            <tr key={name}>
              <td className="text-second">{name}</td>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

interface ChosenRowsProps {
  readonly alone: bigint
  readonly together: bigint
  readonly isExact: boolean
}

/** What some of them give back: each by itself, and together. */
const ChosenRows = ({ alone, together, isExact }: ChosenRowsProps) => (
  <>
    <tr>
      <td>Held by one of them only</td>
      <td className="number mono">{formatBytes(alone)}</td>
    </tr>
    <tr>
      <td>Held by several of them, by no other</td>
      <td className="number mono">{isExact ? formatBytes(together - alone) : 'not stated'}</td>
    </tr>
    <tr>
      <td className="font-semibold">The chosen together{isExact ? '' : ', at the least'}</td>
      <td className="number mono font-semibold">{formatBytes(together)}</td>
    </tr>
  </>
)

/** What those that are chosen give back together, which is more than each alone where several hold the same. */
function GivenBack({ all, chosen }: { readonly all: readonly Judged[]; readonly chosen: ReadonlySet<string> }) {
  const space = useMemo(() => spaceOf(all.map(({ snapshot }) => snapshot)), [all])
  const alone = all.reduce((sum, { snapshot }) => (chosen.has(snapshot.id) ? sum + snapshot.ownBytes : sum), 0n)
  const together = space.reclaim(chosen)
  return (
    <div>
      <h3>
        What they give back{' '}
        <span>{chosen.size === 0 ? 'all of them' : countWords(chosen.size, 'chosen', 'chosen')}</span>
      </h3>
      <table className="plain">
        <tbody>
          {chosen.size > 0 && <ChosenRows alone={alone} together={together} isExact={space.isExact} />}
          <tr>
            <td>
              All {all.length.toLocaleString('en')} together{space.isExact ? '' : ', at the least'}
            </td>
            <td className="number mono">{formatBytes(space.totalBytes)}</td>
          </tr>
        </tbody>
      </table>
      {!space.isExact && (
        <p className="hint mt-1">This system states each one&rsquo;s own space only, not what several hold together.</p>
      )}
    </div>
  )
}
