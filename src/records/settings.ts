import type { EstateSettings } from '@/core/estate'
import type { Scope } from './database'
import { remembered } from './memory'
import { inside, kept, modelFor } from './model'

interface Setting {
  readonly key: string
  readonly value: unknown
}
export const settingModel = modelFor<Setting>('settings', {
  key: { ...kept.text, primaryKey: true },
  value: kept.json,
})

/** One setting; undefined where it has not been set. */
export const setting = <Value>(scope: Scope, key: string): Promise<Value | undefined> =>
  remembered(scope, `setting ${key}`, async () => {
    const found = await settingModel(scope.database).findByPk(key, inside(scope))
    return found?.get('value') as Value | undefined
  })

/** What the administrators have set for the whole estate. */
export async function settings(scope: Scope): Promise<EstateSettings> {
  const found = await settingModel(scope.database).findAll({ raw: true, ...inside(scope) })
  const value = new Map((found as unknown as Setting[]).map(each => [each.key, each.value]))
  const text = (key: string) => value.get(key) as string | undefined
  return {
    volumeNaming: text('volume-naming') ?? '{group}-{purpose}-{nn}',
    holdingDays: Number(value.get('holding-days') ?? 7),
    nameServer: text('name-server') ?? '',
    addresses: text('addresses') ?? '',
  }
}

export const setSetting = async (
  scope: Scope,
  key: 'volume-naming' | 'holding-days' | 'name-server' | 'addresses' | 'estate-clock',
  value: string | number,
): Promise<void> => void (await settingModel(scope.database).upsert({ key, value }, inside(scope)))
