import type { Asked } from '@/app/server/answer'
import { BadRequest } from '@/app/server/errors'
import { wrongNetwork } from '@/core/network'
import { setSetting, settings } from '@/records'
import { addSite } from '@/records/queries'

/** What is set for the whole estate. */
export const settingHandlers = {
  readSettings: ({ scope }: Asked) => settings(scope),
  async writeSettings({ body, scope, noted }: Asked) {
    const before = await settings(scope)
    const { volumeNaming, holdingDays, nameServer = before.nameServer, addresses = before.addresses } = body
    const detail = {
      volumeNaming: String(volumeNaming),
      holdingDays: Number(holdingDays),
      nameServer: String(nameServer),
      addresses: String(addresses),
    }
    const wrong = wrongNetwork(detail.addresses)
    if (wrong !== undefined) throw new BadRequest(`${JSON.stringify(wrong)} is no network as CIDR, such as 10.0.0.0/8.`)
    return noted({ action: 'settings.altered', subject: 'settings', detail }, async inside => {
      await setSetting(inside, 'volume-naming', detail.volumeNaming)
      await setSetting(inside, 'holding-days', detail.holdingDays)
      await setSetting(inside, 'name-server', detail.nameServer)
      await setSetting(inside, 'addresses', detail.addresses)
      return settings(inside)
    })
  },
  async addSite({ body, noted }: Asked) {
    const name = String(body['name']).trim()
    return noted({ action: 'site.added', subject: `site ${name}` }, async inside => ({
      id: await addSite(inside, name),
    }))
  },
}
