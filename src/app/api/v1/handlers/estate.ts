import type { Asked } from '@/app/server/answer'
import { NotThere } from '@/app/server/errors'
import type { IntakeState } from '@/core/estate'
import type { DriveSort, VolumeSort } from '@/core/views'
import {
  driveList,
  search,
  standingFindings,
  systemPage,
  volumeList,
  volumePage,
  type VolumeQuestion,
} from '@/records/queries'

const text = (value: string | number | undefined) => (value === undefined ? undefined : String(value))

/** What stands in the estate. */
export const estateHandlers = {
  listFindings: async ({ scope, query }: Asked) => ({
    items: await standingFindings(scope, text(query['systemId']) ?? null),
  }),
  search: async ({ scope, query }: Asked) => ({ items: await search(scope, text(query['text']) ?? '') }),
  async readSystem({ scope, id }: Asked) {
    const page = await systemPage(scope, id)
    if (page === undefined) throw new NotThere('The system')
    return page
  },
  async readVolume({ scope, id }: Asked) {
    const page = await volumePage(scope, id)
    if (page === undefined) throw new NotThere('The volume')
    return page
  },
  listIntake({ scope, query }: Asked) {
    const { sort, state, kind, systemId } = query
    return driveList(scope, {
      filter: text(query['filter']) ?? '',
      isDescending: query['descending'] === 'true',
      offset: Number(query['offset'] ?? 0),
      limit: Number(query['limit'] ?? 200),
      // The contract lets through only what these may be.
      ...(sort === undefined ? {} : { sort: sort as DriveSort }),
      ...(state === undefined ? {} : { state: state as IntakeState }),
      ...(kind === undefined ? {} : { kind: String(kind) }),
      ...(systemId === undefined ? {} : { systemId: String(systemId) }),
    })
  },
  listVolumes({ scope, query }: Asked) {
    const { sort, state, poolId, classId, application } = query
    const question: VolumeQuestion = {
      filter: text(query['filter']) ?? '',
      isDescending: query['descending'] === 'true',
      offset: Number(query['offset'] ?? 0),
      limit: Number(query['limit'] ?? 200),
      // The contract lets through only what these may be.
      ...(sort === undefined ? {} : { sort: sort as VolumeSort }),
      ...(state === undefined ? {} : { state: state as 'in use' | 'holding' }),
      ...(poolId === undefined ? {} : { poolId: String(poolId) }),
      ...(classId === undefined ? {} : { classId: String(classId) }),
      ...(application === undefined ? {} : { application: String(application) }),
    }
    return volumeList(scope, question)
  },
}
