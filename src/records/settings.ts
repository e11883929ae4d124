import type { EstateSettings } from '@/core/estate'
import { row, run, toJson, type Scope } from './database'

/** What the administrators have set for the whole estate. */
export async function settings(scope: Scope): Promise<EstateSettings> {
  const found = await row<{
    readonly naming: string | null
    readonly days: number | null
    readonly names: string | null
    readonly addresses: string | null
  }>(
    scope,
    `select (select value #>> '{}' from settings where key = 'volume-naming') as naming, (select (value #>> '{}')::int from settings where key = 'holding-days') as days, (select value #>> '{}' from settings where key = 'name-server') as names, (select value #>> '{}' from settings where key = 'addresses') as addresses`,
  )
  return {
    volumeNaming: found?.naming ?? '{group}-{purpose}-{nn}',
    holdingDays: found?.days ?? 7,
    nameServer: found?.names ?? '',
    addresses: found?.addresses ?? '',
  }
}

export const setSetting = (
  scope: Scope,
  key: 'volume-naming' | 'holding-days' | 'name-server' | 'addresses' | 'estate-clock',
  value: string | number,
) =>
  run(
    scope,
    'insert into settings (key, value) values ($1, $2::jsonb) on conflict (key) do update set value = excluded.value',
    [key, toJson(value)],
  )
