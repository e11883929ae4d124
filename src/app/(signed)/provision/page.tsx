import { reader } from '@/app/server/guard'
import { listQuery } from '@/app/server/listQuery'
import { onlyTexts } from '@/app/server/onlyTexts'
import { isUuid } from '@/core/input'
import { countAtStart, countWords } from '@/core/units'
import { volumeSorts } from '@/core/views'
import { objects } from '@/records/objects'
import { pools, volumeList } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { SheetSketch } from '@/ui/drafts'
import { PlacementBoard } from '@/ui/provision/placement'
import { PoolStand } from '@/ui/provision/pools'
import { VolumeTable } from '@/ui/provision/volumes'
import { provisionParts } from './parts'
import { volumeMargin } from './volumeMargin'

export const metadata = { title: 'Provision' }

type Search = Readonly<
  Partial<
    Record<
      | 'draft'
      | 'change'
      | 'sel'
      | 'pool'
      | 'filter'
      | 'sort'
      | 'descending'
      | 'state'
      | 'poolId'
      | 'classId'
      | 'application',
      string
    >
  >
>

export default async function Page({ searchParams }: { readonly searchParams: Promise<Search> }) {
  const search = await onlyTexts(searchParams)
  const { scope } = await reader()
  const question = questionOf(search)
  const first = await volumeList(scope, { ...question, limit: 200 })
  const allPools = await pools(scope)
  const classes = await objects(scope, 'serviceClasses')
  const query = listQuery(question)
  return (
    <SheetSketch>
      <Frame margin={await volumeMargin(search)}>
        <Title words="Provision">
          <SubSections of={provisionParts} />
        </Title>
        <Sentence volumes={first.total} pools={allPools.length} isFiltered={query.size > 0} />
        {search.draft === 'provision-volume' ? <PlacementBoard /> : <PoolStand pools={allPools} />}
        <VolumeTable
          first={first}
          question={query.toString()}
          selected={search.sel}
          pools={allPools.map(({ id, name }) => ({ id, name }))}
          classes={classes.map(({ id, name }) => ({ id, name }))}
        />
      </Frame>
    </SheetSketch>
  )
}

/** What the list is asked for, as its address says; what it does not know is left out. */
function questionOf({ filter = '', sort, descending, state, poolId, classId, application = '' }: Search) {
  const by = volumeSorts.find(each => each === sort)
  const known = (['in use', 'holding'] as const).find(each => each === state)
  return {
    filter: filter.slice(0, 120),
    isDescending: descending === 'true',
    ...(by === undefined ? {} : { sort: by }),
    ...(known === undefined ? {} : { state: known }),
    ...(poolId === undefined || !isUuid(poolId) ? {} : { poolId }),
    ...(classId === undefined || !isUuid(classId) ? {} : { classId }),
    ...(application === '' ? {} : { application: application.slice(0, 60) }),
  }
}

interface SentenceProps {
  readonly volumes: number
  readonly pools: number
  readonly isFiltered: boolean
}

const Sentence = ({ volumes, pools: poolCount, isFiltered }: SentenceProps) => (
  <p className="sentence">
    <b>
      {volumes > 0
        ? `${countAtStart(volumes, 'volume', 'volumes')}.`
        : isFiltered
          ? 'No volume is so.'
          : 'No volume has been provisioned yet.'}
    </b>{' '}
    {poolCount === 0
      ? 'Build a pool first: volumes come from it.'
      : `${volumes === 1 ? 'It comes' : 'They come'} from ${countWords(isFiltered && volumes === 1 ? 1 : poolCount, 'pool', 'pools')}.`}
  </p>
)
