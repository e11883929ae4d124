import { byId } from '@/core/estate'
import { placeHostsIntent, type PlaceHostsIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { sayingOfMany, type SayStep } from '../../parts/sayingOfMany'

/** Says where hosts stand. It alters nothing on them: pools near them are better places for what they see. */
export const placeHosts: ChangeKind<Intent, SayStep> = {
  ...placeHostsIntent,
  needs: () => [],
  ...sayingOfMany<Intent, 'hosts'>({
    ...{ kind: 'hosts', one: 'host', label: 'Site', field: 'siteId' },
    idsIn: ({ hostIds }) => hostIds,
    of: ({ siteId }) => siteId,
    see({ sites }, { siteId }) {
      const site = byId(sites, siteId)
      return {
        to: siteId === '' ? null : siteId,
        words: what => (site === undefined ? `Say of ${what} no site` : `Say that ${what} stand at ${site.name}`),
        nameOf: said => byId(sites, said ?? undefined)?.name ?? 'none',
        checks: [
          rule('site', siteId === '' || site !== undefined, 'The site is there.', 'The site is not there any more.', {
            field: 'siteId',
          }),
        ],
      }
    },
    keep: (records, hostIds, siteId) => records.placeHosts(hostIds, siteId),
  }),
}
