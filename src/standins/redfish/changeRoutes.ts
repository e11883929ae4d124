import type { FastifyInstance, FastifyReply } from 'fastify'
import { hostAccess, type SimulatedArray, type TaskEntity } from '../array'
import { matchOrRefuse } from './answering'
import {
  idIn,
  readConnection,
  readEndpoint,
  readGroup,
  readGroupChange,
  readPool,
  readSignIn,
  readVolume,
  readVolumeChange,
} from './requests'
import * as resources from './resources'
import { createClusterPool, isClusterPool } from './rowRoutes'
import type { RowService } from './RowService'
import type { Sessions } from './sessions'

type Params = { readonly a: string }
const root = '/redfish/v1'

/** 202 with the task's place, as DSP0266 has long work answered. */
const accepted = (reply: FastifyReply, task: TaskEntity) =>
  reply.code(202).header('Location', `${root}/TaskService/Tasks/${task.id}`).send(resources.task(task))
const created = (reply: FastifyReply, body: Readonly<Record<string, unknown>>) =>
  reply.code(201).header('Location', String(body['@odata.id'])).send(body)

/** Everything that a client may change. */
export function changeRoutes(
  server: FastifyInstance,
  array: SimulatedArray,
  sessions: Sessions,
  nodes?: RowService,
): void {
  server.post(`${root}/SessionService/Sessions`, ({ body }, reply) => {
    const { UserName, Password } = readSignIn(body)
    const { id, token } = sessions.open(UserName, Password)
    const path = `${root}/SessionService/Sessions/${id}`
    return reply
      .code(201)
      .header('X-Auth-Token', token)
      .header('Location', path)
      .send({ '@odata.id': path, Id: id, Name: 'Session', UserName })
  })
  server.delete<{ Params: Params }>(`${root}/SessionService/Sessions/:a`, ({ params }, reply) => {
    sessions.close(params.a)
    return reply.code(204).send()
  })

  server.post(`${root}/Storage/1/StoragePools`, ({ body }, reply) => {
    if (nodes !== undefined && isClusterPool(body)) return accepted(reply, createClusterPool(nodes.pools, body))
    const wanted = readPool(body)
    const task = array.createPool({
      name: wanted.Name,
      description: wanted.Description ?? '',
      raidType: wanted.SupportedRAIDTypes[0] ?? 'RAID6',
      groups: wanted.CapacitySources.map(source => source.ProvidingDrives.Members.map(idIn)),
      spares: (wanted.Links?.DedicatedSpareDrives ?? []).map(idIn),
      snapshotReserveRatio: (wanted.Capacity?.Snapshot?.AllocatedPercent ?? 0) / 100,
    })
    return accepted(reply, task)
  })
  server.delete<{ Params: Params }>(`${root}/Storage/1/StoragePools/:a`, (request, reply) => {
    matchOrRefuse(request, resources.pool(array, array.one('pools', request.params.a), nodes?.view))
    ;(nodes?.pools ?? array).removePool(request.params.a)
    return reply.code(204).send()
  })

  server.post(`${root}/Storage/1/Volumes`, ({ body }, reply) => {
    const wanted = readVolume(body)
    const { volume, task } = array.createVolume({
      name: wanted.Name,
      description: wanted.Description ?? '',
      poolId: idIn(wanted.CapacitySources[0]?.ProvidingPools.Members[0]),
      sizeBytes: BigInt(wanted.CapacityBytes),
      isThin: wanted.ProvisioningPolicy !== 'Fixed',
    })
    return task === undefined ? created(reply, resources.volume(array, volume, nodes?.view)) : accepted(reply, task)
  })
  server.patch<{ Params: Params }>(`${root}/Storage/1/Volumes/:a`, (request, reply) => {
    const { a } = request.params
    matchOrRefuse(request, resources.volume(array, array.one('volumes', a), nodes?.view))
    const wanted = readVolumeChange(request.body)
    if (wanted.DisplayName !== undefined) array.renameVolume(a, wanted.DisplayName)
    if (wanted.Description !== undefined) array.describeVolume(a, wanted.Description)
    const task =
      wanted.CapacityBytes === undefined
        ? undefined
        : array.enlargeVolume(a, BigInt(wanted.CapacityBytes), wanted.Description ?? '')
    return task === undefined
      ? reply.send(resources.volume(array, array.one('volumes', a), nodes?.view))
      : accepted(reply, task)
  })
  server.delete<{ Params: Params }>(`${root}/Storage/1/Volumes/:a`, (request, reply) => {
    matchOrRefuse(request, resources.volume(array, array.one('volumes', request.params.a), nodes?.view))
    array.removeVolume(request.params.a)
    return reply.code(204).send()
  })

  server.post(`${root}/Fabrics/SAN/Endpoints`, ({ body }, reply) => {
    const endpoint = hostAccess.addEndpoint(array, readEndpoint(body).Identifiers[0]?.DurableName ?? '')
    return created(reply, resources.initiatorEndpoint(endpoint.id, endpoint.initiator))
  })
  server.post(`${root}/Fabrics/SAN/EndpointGroups`, ({ body }, reply) => {
    const wanted = readGroup(body)
    return created(
      reply,
      resources.endpointGroup(
        hostAccess.addGroup(array, wanted.Name, wanted.Description ?? '', wanted.Endpoints.map(idIn)),
      ),
    )
  })
  server.patch<{ Params: Params }>(`${root}/Fabrics/SAN/EndpointGroups/:a`, ({ body, params }, reply) => {
    hostAccess.setGroupMembers(array, params.a, readGroupChange(body).Endpoints.map(idIn))
    return reply.send(resources.endpointGroup(array.one('groups', params.a)))
  })
  server.post(`${root}/Fabrics/SAN/Connections`, ({ body }, reply) => {
    const wanted = readConnection(body)
    const made = hostAccess.connect(
      array,
      idIn(wanted.Links.InitiatorEndpointGroups[0]),
      idIn(wanted.VolumeInfo[0]?.Volume),
      wanted.Description ?? '',
    )
    return created(reply, resources.connection(made))
  })
  server.delete<{ Params: Params }>(`${root}/Fabrics/SAN/Connections/:a`, ({ params }, reply) => {
    hostAccess.disconnect(array, params.a)
    return reply.code(204).send()
  })
}
