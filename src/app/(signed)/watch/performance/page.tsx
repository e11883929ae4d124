import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { boardQuery } from '@/core/board'
import { isUuid } from '@/core/input'
import type { VolumeLoad } from '@/core/views'
import { estateNow } from '@/records/inventory'
import { slowest, volumeLoad } from '@/records/queries'
import { Strata } from '@/ui/drawings/strata'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { latencyWords, Loud, performanceSentence, Slowest, VolumeCourse } from '@/ui/watch/performance'
import { watchParts } from '../parts'

export const metadata = { title: 'Performance' }

const shownAtFirst = 20
const mostShown = 500

type Search = Promise<{ readonly sel?: string; readonly at?: string; readonly all?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const { sel, at, all } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const list = await slowest(scope, all === 'yes' ? mostShown : shownAtFirst)
  const chosen = sel !== undefined && isUuid(sel) ? sel : list.lines[0]?.id
  const load = chosen === undefined ? undefined : await volumeLoad(scope, chosen, await estateNow(scope), instantOf(at))
  const { first, then } = performanceSentence(list, load)
  return (
    <Frame margin={load === undefined ? undefined : <LoadMargin load={load} />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <p className="sentence">
        <b>{first}</b> {then}
      </p>
      {load !== undefined && <VolumeCourse load={load} />}
      {list.lines.length > 0 && (
        <>
          <h3>
            Slowest first <span>the last day, against what is promised</span>
          </h3>
          <Slowest lines={list.lines} selected={chosen} />
          {list.lines.length < list.total && (
            <p className="text-second">
              {list.lines.length} of {list.total.toLocaleString('en')}.{' '}
              {all !== 'yes' && (
                <Link className="textlink" href="/watch/performance?all=yes">
                  The slowest {Math.min(mostShown, list.total)}
                </Link>
              )}
            </p>
          )}
        </>
      )}
    </Frame>
  )
}

/** A board on which a volume's week stands beside the one before it. */
const besideLastWeek = ({ id, poolId }: VolumeLoad['line']) => {
  const lane = { over: null, shiftDays: 0, isUsualShown: false }
  const lanes = [
    { ...lane, metric: 'latency' as const, objectId: id, shiftDays: -7, isUsualShown: true },
    { ...lane, metric: 'requests' as const, objectId: id, shiftDays: -7 },
    { ...lane, metric: 'latency' as const, objectId: poolId },
  ]
  return `/watch/board?${boardQuery({ lanes, hours: 168, until: null, chosen: 0 })}`
}

/** An instant of an address (milliseconds since 1970); anything else is none. */
function instantOf(text: string | undefined): Date | undefined {
  const found = new Date(/^\d{1,15}$/.test(text ?? '') ? Number(text) : Number.NaN)
  return Number.isNaN(found.getTime()) ? undefined : found
}

const LoadMargin = ({ load }: { readonly load: VolumeLoad }) => (
  <Margin
    foot={
      <>
        <Link className="button quiet" href={`/provision?sel=${load.line.id}`}>
          The volume
        </Link>
        <Link className="button quiet" href={besideLastWeek(load.line)}>
          Beside last week
        </Link>
        <Link className="button quiet" href={`/watch?sel=${load.line.poolId}`}>
          Its pool’s capacity
        </Link>
      </>
    }
  >
    <h2 className="pr-12 break-words">{load.line.name}</h2>
    <div className="text-second">
      {load.line.className === null
        ? 'Under no class: nothing is promised of its latency.'
        : load.line.promisedSeconds === null
          ? `${load.line.className} promises no latency.`
          : `${load.line.className} promises ${latencyWords(load.line.promisedSeconds)}.`}
    </div>
    <Loud load={load} />
    <Strata
      title="Its latency over the week"
      about="hours of two weeks, UTC"
      values={load.strata}
      words={latencyWords}
    />
  </Margin>
)
