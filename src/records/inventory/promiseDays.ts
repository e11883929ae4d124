import { run, type Scope } from '../database'

/** How many volumes of a class kept one of its promises when they were looked at. */
export interface PromiseLook {
  readonly classId: string
  readonly promise: string
  /** In words. */
  readonly promised: string
  /** Volumes of which it could be told, and of these those that kept it. */
  readonly volumes: number
  readonly kept: number
}

/** Adds what was seen in an hour to what is noted of its day; of one hour the first look counts, whoever looks. */
export const notePromises = (scope: Scope, looks: readonly PromiseLook[], at: Date): Promise<void> =>
  run(
    scope,
    `insert into promise_days (class_id, promise, day, promised, last_hour, hours, kept)
     select "classId", promise, ($2::timestamptz at time zone 'utc')::date, promised, date_trunc('hour', $2::timestamptz), volumes, kept
     from jsonb_to_recordset($1::jsonb) as looks("classId" uuid, promise text, promised text, volumes bigint, kept bigint)
     where volumes > 0 and exists (select from service_classes where id = "classId")
     on conflict (class_id, promise, day) do update set promised = excluded.promised, last_hour = excluded.last_hour,
       hours = promise_days.hours + excluded.hours, kept = promise_days.kept + excluded.kept
     where promise_days.last_hour < excluded.last_hour`,
    [JSON.stringify(looks), at.toISOString()],
  )
