import type { Estate } from '@/core/estate'
import { removeRouteIntent, type RouteIntent } from '@/core/intents'
import { advise } from '../../parts/checks'
import { removingOwn } from '../../parts/removingOwn'

const tellingThere = ({ rules }: Estate, id: string) => rules.filter(({ routeIds }) => routeIds.includes(id))

export const removeRoute = removingOwn<'routes', RouteIntent>(removeRouteIntent, {
  of: 'routes',
  idOf: ({ routeId }) => routeId,
  title: name => `Remove the route ${name}`,
  checks(estate, { id }, look) {
    const telling = tellingThere(estate, id)
    const silent = telling.filter(({ routeIds }) => routeIds.length === 1)
    look.at('rules', telling)
    return [
      advise(
        'others',
        silent.length === 0,
        'Every rule tells somebody else besides.',
        `${silent.map(({ name }) => name).join(', ')} will tell nobody.`,
      ),
    ]
  },
  effects: (estate, found) => [
    {
      figure: 'rules',
      label: 'Rules that tell there',
      unit: 'count',
      before: found === undefined ? 0 : tellingThere(estate, found.id).length,
      after: 0,
    },
  ],
  alsoGone(estate, id) {
    const left = tellingThere(estate, id).length
    return { claim: 'No rule tells there', holds: left === 0, measured: { rulesLeft: `${left}` } }
  },
})
