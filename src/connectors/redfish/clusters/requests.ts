import { NotOffered, type ClusterSeen, type Clusters } from '@/ports'
import { OtherObject } from '../errors'
import { keyMark } from '../keyMark'
import { reference, type Offer } from '../Reach'
import { madeBy, taskMaking } from '../tasks/requests'
import { isAggregate, isAggregationService } from './schema'

/** The union of a row's nodes. Source: DMTF Aggregate schema. */
export const clusters: Offer<'clusters'> = ({ connection, map }): Clusters => {
  const none = (why: string) => new NotOffered(connection.endpoint.address, 'clusters', why)
  const { aggregation, computers } = map
  if (aggregation === undefined || computers === undefined)
    throw none('It is no row of nodes: it names no computers that could become a cluster.')
  const aggregates = async () => (await connection.read(aggregation, isAggregationService)).Aggregates['@odata.id']
  const now = async (): Promise<ClusterSeen | undefined> => {
    const [found] = await connection.members(await aggregates(), isAggregate)
    if (found === undefined) return undefined
    return {
      locator: found['@odata.id'],
      name: found.Name,
      isReady: found.Status?.State === 'Enabled',
      nodeLocators: found.Elements.map(each => each['@odata.id']),
      task: await taskMaking(connection, map.tasks, found['@odata.id']),
    }
  }
  return {
    now,
    async form(name, nodeLocators, key) {
      const body = { Name: name, Description: keyMark(key), Elements: nodeLocators.map(reference) }
      return madeBy(connection, await connection.change('POST', await aggregates(), body))
    },
    async setMembers(nodeLocators) {
      const found = await now()
      if (found === undefined) throw none('Its nodes form no cluster.')
      await connection.change('PATCH', found.locator, { Elements: nodeLocators.map(reference) })
    },
    async dissolve(expectedName) {
      const found = await now()
      if (found === undefined) return
      if (found.name !== expectedName) throw new OtherObject(found.locator, expectedName, found.name)
      await connection.change('DELETE', found.locator)
    },
  }
}
