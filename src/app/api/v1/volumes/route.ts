import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { BadRequest } from '@/app/server/errors'
import { volumeSorts } from '@/core/views'
import { volumeList } from '@/records/queries'

const whole = (text: string | null, name: string, otherwise: number) => {
  if (text === null) return otherwise
  if (!/^[0-9]{1,9}$/.test(text)) throw new BadRequest(`${name} is a whole number.`)
  return Number(text)
}

export const GET = answer('listVolumes', async ({ query }) => {
  const sort = volumeSorts.find(each => each === query.get('sort'))
  const state = (['in use', 'holding'] as const).find(each => each === query.get('state'))
  const poolId = query.get('poolId')
  return volumeList(
    { database: context().database },
    {
      filter: (query.get('filter') ?? '').slice(0, 120),
      isDescending: query.get('descending') === 'true',
      offset: whole(query.get('offset'), 'offset', 0),
      limit: whole(query.get('limit'), 'limit', 200),
      ...(sort === undefined ? {} : { sort }),
      ...(state === undefined ? {} : { state }),
      ...(poolId === null || !/^[0-9a-f-]{36}$/.test(poolId) ? {} : { poolId }),
    },
  )
})
