import { clustering, type ClusterEntity, type SimulatedRow } from '../../row'
import { idIn, link } from '../body'
import { accepts, placesOf, single, type Place } from '../Place'
import { longText, references, text } from '../reader'

const union = {
  type: 'object',
  required: ['Name', 'Elements'],
  properties: { Name: text, Description: longText, Elements: { ...references, minItems: 1 } },
} as const
const members = {
  type: 'object',
  required: ['Elements'],
  additionalProperties: false,
  properties: { Elements: { ...references, minItems: 1 } },
} as const

/** The union of a row's nodes: its cluster. Source: DMTF Aggregate schema. */
export function aggregatePlaces(row: SimulatedRow): Place[] {
  return [
    single('AggregationService', 'AggregationService.v1_0_4.AggregationService', 'Aggregation service', () => ({
      ServiceEnabled: true,
      Aggregates: link('AggregationService/Aggregates'),
    })),
    ...placesOf<ClusterEntity>({
      path: 'AggregationService/Aggregates/:aggregate',
      type: 'Aggregate.v1_0_3.Aggregate',
      title: 'Clusters',
      members: () => row.all('clusters'),
      idOf: each => each.id,
      nameOf: each => each.name,
      body: each => ({
        Description: each.description,
        Elements: each.nodeIds.map(id => link(`Systems/${id}`)),
        ElementsCount: each.nodeIds.length,
        Status: { State: each.isReady ? 'Enabled' : 'Starting', Health: 'OK' },
      }),
      create: accepts(union, ({ Name, Description, Elements }) => ({
        task: clustering.formCluster(row, Name, Description ?? '', Elements.map(idIn)),
      })),
      change: accepts(members, ({ Elements }) => {
        clustering.setMembers(row, Elements.map(idIn))
        return undefined
      }),
      remove: () => clustering.dissolve(row),
    }),
  ]
}
