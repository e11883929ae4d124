import { v7 as uuid } from 'uuid'
import type { Probe } from '@/core/estate'
import { row, rows, run, toJson, type Scope } from '../database'
import { seal, unseal } from '../secrets'

/** What is needed to speak to a system. */
export interface SystemAccess {
  readonly protocol: string
  readonly address: string
  readonly acceptedFingerprint: string | null
  readonly userName: string
  readonly password: string
  /** By which it was registered: another one gets no password. */
  readonly uuid: string
}

interface AccessRow {
  readonly protocol: string
  readonly address: string
  readonly accepted_fingerprint: string | null
  readonly user_name: string
  readonly sealed_password: Buffer
  readonly uuid: string
}

/** Keeps what a first look found, with the sealed password; @returns its id */
export async function keepProbe(
  scope: Scope,
  key: Buffer,
  found: Omit<Probe, 'id' | 'at'>,
  access: SystemAccess,
  madeBy: string,
): Promise<string> {
  const id = uuid()
  await run(scope, `delete from probes where at < now() - interval '1 day'`)
  await run(
    scope,
    'insert into probes (id, found, address, uuid, accepted_fingerprint, user_name, sealed_password, made_by, protocol) values ($1, $2::jsonb, $3, $4, $5, $6, $7, $8, $9)',
    [
      id,
      toJson(found),
      access.address,
      found.uuid,
      access.acceptedFingerprint,
      access.userName,
      seal(key, access.password, id),
      madeBy,
      access.protocol,
    ],
  )
  return id
}

export async function probeAccess(scope: Scope, key: Buffer, probeId: string): Promise<SystemAccess | undefined> {
  const found = await row<AccessRow>(
    scope,
    'select protocol, address, accepted_fingerprint, user_name, sealed_password, uuid from probes where id = $1',
    [probeId],
  )
  return found === undefined ? undefined : opened(found, key, probeId)
}

/** The way to a system, and the networks in which systems may stand. */
export async function systemAccess(
  scope: Scope,
  key: Buffer,
  systemId: string,
): Promise<(SystemAccess & { readonly allowedNetworks: string }) | undefined> {
  const found = await row<AccessRow & { readonly networks: string | null }>(
    scope,
    `select protocol, address, accepted_fingerprint, user_name, sealed_password, uuid,
       (select value #>> '{}' from settings where key = 'addresses') as networks
     from systems where id = $1`,
    [systemId],
  )
  return found === undefined ? undefined : { ...opened(found, key, systemId), allowedNetworks: found.networks ?? '' }
}

const opened = (found: AccessRow, key: Buffer, context: string): SystemAccess => ({
  protocol: found.protocol,
  address: found.address,
  acceptedFingerprint: found.accepted_fingerprint,
  userName: found.user_name,
  uuid: found.uuid,
  password: unseal(key, found.sealed_password, context),
})

/** Takes a probed system into the estate; a second call with the same key finds the first one's. @returns its id */
export async function enrolSystem(
  scope: Scope,
  key: Buffer,
  probeId: string,
  name: string,
  siteId: string | null,
  enrolKey: string,
): Promise<string> {
  const known = await row<{ readonly id: string }>(scope, 'select id from systems where enrol_key = $1', [enrolKey])
  if (known !== undefined) return known.id
  const access = await probeAccess(scope, key, probeId)
  const probe = await row<{ readonly found: Probe }>(scope, 'select found from probes where id = $1', [probeId])
  if (access === undefined || probe === undefined) throw new Error(`The first look ${probeId} is no longer kept.`)
  const id = uuid()
  const { maker, model, serial, uuid: systemUuid, firmware } = probe.found
  await run(
    scope,
    `insert into systems (id, site_id, name, address, maker, model, serial, uuid, firmware, reach, seen_at, accepted_fingerprint, user_name, sealed_password, enrol_key, protocol)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, 'answering', now(), $10, $11, $12, $13, $14)`,
    [
      id,
      siteId,
      name,
      access.address,
      maker,
      model,
      serial,
      systemUuid,
      firmware,
      access.acceptedFingerprint,
      access.userName,
      seal(key, access.password, id),
      enrolKey,
      access.protocol,
    ],
  )
  return id
}

export const systemName = async (scope: Scope, id: string) =>
  (await row<{ readonly name: string }>(scope, 'select name from systems where id = $1', [id]))?.name ?? ''

export const systemsNamed = (scope: Scope) =>
  rows<{ readonly id: string; readonly name: string }>(scope, 'select id, name from systems order by name')

export const systemIds = async (scope: Scope) => (await systemsNamed(scope)).map(({ id }) => id)

/** Why a system was not read, with the code by which a page tells one reason from another. */
export interface ReachTrouble {
  readonly code: string
  readonly why: string
}

/** Notes whether a system answers. */
export async function noteReach(scope: Scope, systemId: string, trouble: ReachTrouble | null): Promise<void> {
  await run(
    scope,
    `update systems set reach = $2, reach_why = $3, reach_code = $4, seen_at = case when $3::text is null then now() else seen_at end
     where id = $1 and ((reach, reach_why, reach_code) is distinct from ($2, $3::text, $4::text) or $3::text is null and seen_at < now() - interval '20 seconds')`,
    [systemId, trouble === null ? 'answering' : 'not answering', trouble?.why ?? null, trouble?.code ?? null],
  )
}

/** Takes a system and all that it has out of the estate. */
export const forgetSystem = (scope: Scope, id: string) => run(scope, 'delete from systems where id = $1', [id])

/** Takes a host into the estate, and its group if that is new; safe to repeat by its key. @returns its id */
export async function enrolHost(
  scope: Scope,
  host: {
    readonly name: string
    readonly agentAddress: string
    readonly operatingSystem: string
    readonly initiators: readonly string[]
    readonly addresses?: readonly string[]
    readonly groupName: string
    readonly siteId: string | null
    readonly secretId: string | null
  },
  enrolKey: string,
): Promise<string> {
  await run(scope, 'insert into host_groups (id, name) values ($1, $2) on conflict (name) do nothing', [
    uuid(),
    host.groupName,
  ])
  await run(
    scope,
    `insert into hosts (id, host_group_id, name, agent_address, operating_system, initiators, enrol_key, agent_secret_id, addresses, site_id)
     select $1, id, $2, $3, $4, $5::jsonb, $7, $8, $9::jsonb, $10 from host_groups where name = $6 on conflict (enrol_key) do nothing`,
    [
      uuid(),
      host.name,
      host.agentAddress,
      host.operatingSystem,
      toJson(host.initiators),
      host.groupName,
      enrolKey,
      host.secretId,
      toJson(host.addresses ?? []),
      host.siteId,
    ],
  )
  return (await row<{ readonly id: string }>(scope, 'select id from hosts where enrol_key = $1', [enrolKey]))?.id ?? ''
}

/** Of the credential that is shown at an address; undefined where none is asked for. */
export const agentSecretId = async (scope: Scope, agentAddress: string): Promise<string | undefined> =>
  (
    await row<{ readonly agent_secret_id: string | null }>(
      scope,
      'select agent_secret_id from hosts where agent_address = $1',
      [agentAddress],
    )
  )?.agent_secret_id ?? undefined

/** Takes hosts without an agent into the estate, and their groups where those are new; safe to repeat by its key. */
export async function enrolHosts(
  scope: Scope,
  hosts: readonly {
    readonly name: string
    readonly groupName: string
    readonly initiators: readonly string[]
    readonly addresses: readonly string[]
  }[],
  enrolKey: string,
): Promise<void> {
  const groups = [...new Set(hosts.map(({ groupName }) => groupName))].map(name => ({ id: uuid(), name }))
  await run(
    scope,
    `insert into host_groups (id, name) select id, name from jsonb_to_recordset($1::jsonb) as g(id uuid, name text)
     on conflict (name) do nothing`,
    [toJson(groups)],
  )
  const named = hosts.map((host, index) => ({ id: uuid(), ...host, key: `${enrolKey}/${index}` }))
  await run(
    scope,
    `insert into hosts (id, host_group_id, name, initiators, addresses, enrol_key)
     select h.id, host_groups.id, h.name, h.initiators, h.addresses, h.key
     from jsonb_to_recordset($1::jsonb) as h(id uuid, name text, "groupName" text, initiators jsonb, addresses jsonb, key text)
     join host_groups on host_groups.name = h."groupName" on conflict (enrol_key) do nothing`,
    [toJson(named)],
  )
}

/** Takes a host out of the records, or those that one step took in; and what groups are then left without any host or mapping. */
export async function dropHosts(
  scope: Scope,
  which: { readonly id: string } | { readonly enrolledBy: string },
): Promise<void> {
  const by = 'id' in which ? 'id = $1::uuid' : `starts_with(enrol_key, $1 || '/')`
  await run(
    scope,
    `with gone as (delete from hosts where ${by} returning id, host_group_id)
     delete from host_groups where id in (select host_group_id from gone)
       and not exists (select from hosts where host_group_id = host_groups.id and hosts.id not in (select id from gone))
       and not exists (select from mappings where host_group_id = host_groups.id)`,
    ['id' in which ? which.id : which.enrolledBy],
  )
}
