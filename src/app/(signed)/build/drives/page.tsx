import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { driveQuestion } from '@/app/server/driveQuestion'
import { listQuery } from '@/app/server/listQuery'
import { onlyTexts } from '@/app/server/onlyTexts'
import { driveKinds, type Node, type Pool, type System } from '@/core/estate'
import { countAtStart, countWords } from '@/core/units'
import type { DriveCount } from '@/core/views'
import {
  driveCounts,
  driveList,
  enclosures as allEnclosures,
  nodesOfAll,
  pools as allPools,
  systems as allSystems,
} from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { IntakeList, KindTotals, type IntakeSystem } from '@/ui/build/intake'
import { buildParts } from '../parts'
import { DriveBays } from './DriveBays'
import { driveMargin } from './driveMargin'

export const metadata = { title: 'Drives' }

type Params = Readonly<
  Partial<Record<'state' | 'kind' | 'filter' | 'sort' | 'descending' | 'drive' | 'system' | 'draft' | 'change', string>>
>

export default async function Page({ searchParams }: { readonly searchParams: Promise<Params> }) {
  const params = await onlyTexts(searchParams)
  const { scope } = await reader()
  const question = driveQuestion(params)
  const [counts, first, systems, enclosures, nodes, pools] = await Promise.all([
    driveCounts(scope),
    driveList(scope, { ...question, limit: 200 }),
    allSystems(scope),
    allEnclosures(scope),
    nodesOfAll(scope),
    allPools(scope),
  ])
  const query = listQuery(question)
  return (
    <Frame margin={await driveMargin(params, counts)}>
      <Title words="Drives">
        <SubSections of={buildParts} />
      </Title>
      <Sentence counts={counts} enclosures={enclosures.length} />
      <KindTotals kinds={driveKinds(counts)} />
      {(question.state !== undefined || question.kind !== undefined) && (
        <p className="mt-2 mb-0">
          Shown: {[question.kind, question.state].filter(Boolean).join(', ')},{' '}
          {countWords(first.total, 'drive', 'drives')}.{' '}
          <Link className="textlink" href="/build/drives">
            All of them
          </Link>
        </p>
      )}
      <IntakeList
        first={first}
        question={query.toString()}
        systems={intakeSystems(systems, nodes, pools)}
        selected={params.drive}
      />
      <DriveBays {...{ params, counts, systems, enclosures, nodes }} />
    </Frame>
  )
}

function Sentence({ counts, enclosures }: { readonly counts: readonly DriveCount[]; readonly enclosures: number }) {
  const of = (state?: string) =>
    counts.reduce((sum, each) => sum + (state === undefined || each.intake === state ? each.count : 0), 0)
  const foreign = of('foreign')
  return (
    <p className="sentence">
      <b>
        {countAtStart(of(), 'drive stands', 'drives stand')} in {countWords(enclosures, 'enclosure', 'enclosures')};{' '}
        {countWords(of('unassigned'), 'is', 'are')} free.
      </b>{' '}
      {foreign === 0
        ? 'None carries anything from an earlier use.'
        : `${countAtStart(foreign, 'carries', 'carry')} what an earlier use has left.`}
    </p>
  )
}

const intakeSystems = (
  systems: readonly System[],
  nodes: readonly Node[],
  pools: readonly Pool[],
): readonly IntakeSystem[] => {
  const rows = new Set(nodes.map(node => node.systemId))
  const spread = new Map(pools.filter(pool => pool.failureDomain !== null).map(pool => [pool.systemId, pool.id]))
  return systems.map(({ id, name }) => ({
    id,
    name,
    isRow: rows.has(id),
    clusterPoolId: spread.get(id) ?? null,
  }))
}
