import { conflict, notFound, type TaskEntity } from '../array'
import type { ClusterEntity, NodeEntity } from './entities'
import type { SimulatedRow } from './SimulatedRow'
import { linkRate } from './Wires'

/** Joins nodes into one, which takes until each has the cluster's software from the first. */
export function formCluster(
  row: SimulatedRow,
  name: string,
  description: string,
  nodeIds: readonly string[],
): TaskEntity {
  if (row.all('clusters').length > 0)
    throw conflict(`${name} was not formed.`, 'The row has a cluster.', 'Add the nodes to that one.')
  const nodes = nodeIds.map(id => row.answering(id))
  for (const node of nodes) {
    if (Math.abs(node.clockOffsetSeconds) > 30)
      throw conflict(`${name} was not formed.`, `The clock of ${node.id} is off.`, 'Set its clock.')
  }
  reachEachOther(row, name, nodes)
  const cluster: ClusterEntity = { id: '1', name, description, nodeIds, isReady: false }
  const imageBytes = 6e9
  const lanes = nodes.map(node => {
    const port = row.all('nodePorts').find(each => each.nodeId === node.id && each.storage !== null)
    return { bytes: imageBytes, bytesPerSecond: port === undefined ? 1e8 : linkRate(port) * 0.1 }
  })
  const task: TaskEntity = {
    ...row.array.task(`Form ${name}`, 'form-cluster', '1', { name, nodeIds }, lanes),
    targetUri: '/redfish/v1/AggregationService/Aggregates',
    resultUri: '/redfish/v1/AggregationService/Aggregates/1',
  }
  row.array.store.commit([row.entry('clusters', cluster), row.array.entry('tasks', task), ...row.restarted(nodes)])
  return task
}

/** Takes nodes into the cluster, or lets them go. Nodes whose drives hold pieces stay. */
export function setMembers(row: SimulatedRow, nodeIds: readonly string[]): void {
  const [cluster] = row.all('clusters')
  if (cluster === undefined) throw notFound('clusters')
  const coming = nodeIds.filter(id => !cluster.nodeIds.includes(id)).map(id => row.answering(id))
  if (coming.length > 0)
    reachEachOther(
      row,
      cluster.name,
      nodeIds.map(id => row.answering(id)),
    )
  const leaving = cluster.nodeIds.filter(id => !nodeIds.includes(id))
  const holding = row.array.all('drives').find(drive => drive.poolId !== null && leaving.includes(drive.enclosureId))
  if (holding !== undefined)
    throw conflict(
      'The nodes were not let go.',
      `Drive ${holding.serial} still serves a pool.`,
      'Take its bank out first.',
    )
  row.array.store.commit([row.entry('clusters', { ...cluster, nodeIds }), ...row.restarted(coming)])
}

export function dissolve(row: SimulatedRow): void {
  const [cluster] = row.all('clusters')
  if (cluster === undefined) return
  if (row.array.all('pools').some(pool => pool.spread !== null))
    throw conflict(`${cluster.name} was not dissolved.`, 'It holds a pool.', 'Remove the pool first.')
  const running = row.array.all('tasks').filter(task => task.work === 'form-cluster' && task.state === 'Running')
  row.array.store.commit([
    row.gone('clusters', cluster.id),
    ...running.map(task =>
      row.array.entry('tasks', {
        ...task,
        state: 'Exception',
        endedAt: row.array.clock.now(),
        message: 'The cluster was dissolved.',
      }),
    ),
  ])
}

function reachEachOther(row: SimulatedRow, name: string, nodes: readonly NodeEntity[]): void {
  const wires = row.wires()
  const ports = row.all('nodePorts').filter(port => port.storage !== null)
  for (const from of nodes) {
    const wanted = ports.find(port => port.nodeId === from.id)?.mtu ?? 9216
    for (const to of nodes) {
      if (from === to) continue
      const address = ports.find(port => port.nodeId === to.id)?.storage?.address
      const passed = address == null ? null : wires.passes(from.id, address, wanted)
      if (passed === null || passed < wanted)
        throw conflict(
          `${name} was not formed.`,
          `${from.id} does not reach ${to.id} at full frame size.`,
          'Mend the path.',
        )
    }
  }
}
