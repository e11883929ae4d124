import type { Drives } from '@/ports'
import { OtherObject } from '../errors'
import type { Offer } from '../Reach'
import { taskIn, taskMaking } from '../tasks/requests'
import { isDrive, isLit } from './schema'

/** Drives of a system. Source: DMTF Drive schema, LocationIndicatorActive and SecureErase. */
export const drives: Offer<'drives'> = ({ connection, map }): Drives => ({
  async setLight(locator, isOn) {
    await connection.change('PATCH', locator, { LocationIndicatorActive: isOn })
  },
  isLit: async locator => (await connection.read(locator, isLit)).LocationIndicatorActive,
  async erase(locator, expectedSerial, isWhole) {
    const body = { SanitizationType: isWhole ? 'Overwrite' : 'BlockErase' }
    const asked = await connection.changeAsRead(locator, isDrive, ({ SerialNumber }) => {
      if (SerialNumber !== expectedSerial)
        throw new OtherObject(locator, `drive ${expectedSerial}`, `drive ${SerialNumber}`)
      return { method: 'POST', at: `${locator}/Actions/Drive.SecureErase`, body }
    })
    return taskIn(asked)
  },
  erasing: locator => taskMaking(connection, map.tasks, locator),
})
