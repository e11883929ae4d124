import type { Catalogue, NameAnswer, PathProbe } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { run, toJson, type Scope } from '../database'

/** Keeps the latest probe of a system's paths. */
export const keepPathProbe = (scope: Scope, probe: PathProbe) =>
  run(
    scope,
    `insert into path_probes (system_id, at, wanted_mtu, answers) values ($1, $2, $3, $4::jsonb)
     on conflict (system_id) do update set at = excluded.at, wanted_mtu = excluded.wanted_mtu, answers = excluded.answers
     where path_probes.at <= excluded.at`,
    [probe.systemId, probe.at, probe.wantedMtu, toJson(probe.answers)],
  )

/** Keeps what the name server said last of each question. */
export const keepNameAnswers = (scope: Scope, answers: readonly NameAnswer[]) =>
  run(
    scope,
    `insert into name_answers (query, kind, answers, why, at)
     select distinct on (r.query, r.kind) r.query, r.kind, r.answers, r.why, r.at from jsonb_to_recordset($1::jsonb)
       as r(query text, kind text, answers jsonb, why text, at timestamptz)
     order by r.query, r.kind, r.at desc
     on conflict (query, kind) do update set answers = excluded.answers, why = excluded.why, at = excluded.at`,
    [toJson(answers)],
  )

export const signException = (
  scope: Scope,
  exception: {
    readonly findingKey: string
    readonly gravity: 'now' | 'soon' | 'note' | null
    readonly reason: string
    readonly until: Date
    readonly signedBy: string
  },
  key: string,
) =>
  run(
    scope,
    `insert into signed_exceptions (id, sign_key, finding_key, reason, signed_by, until, gravity) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (sign_key) do nothing`,
    [
      uuid(),
      key,
      exception.findingKey,
      exception.reason,
      exception.signedBy,
      exception.until.toISOString(),
      exception.gravity,
    ],
  )

/** Ends an exception now; what was signed stays on record. */
export const withdrawException = (scope: Scope, key: string) =>
  run(scope, 'update signed_exceptions set until = least(until, now()) where sign_key = $1', [key])

export const keepCatalogue = (scope: Scope, catalogue: Catalogue, importedBy: string, key: string) =>
  run(
    scope,
    `insert into catalogues (id, import_key, maker, issued_at, body, imported_by) values ($1, $2, $3, $4, $5::jsonb, $6)
     on conflict (import_key) do nothing`,
    [uuid(), key, catalogue.maker, catalogue.issuedAt, toJson(catalogue), importedBy],
  )

export const dropCatalogue = (scope: Scope, key: string) =>
  run(scope, 'delete from catalogues where import_key = $1', [key])
