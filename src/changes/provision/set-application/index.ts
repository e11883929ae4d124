import { those } from '@/core/estate'
import { setApplicationIntent, type SetApplicationIntent as Intent } from '@/core/intents'
import type { ChangeKind } from '../../ChangeKind'
import { applicationOf } from '../../parts/keptFor'
import { sayingOfMany, type SayStep } from '../../parts/sayingOfMany'

/** Says what volumes serve: capacity is told by it, and pools may be kept for one. */
export const setApplication: ChangeKind<Intent, SayStep> = {
  ...setApplicationIntent,
  needs: ({ volumeIds }) => [those('volumes', 'id', ...volumeIds)],
  ...sayingOfMany<Intent, 'volumes'>({
    ...{ kind: 'volumes', one: 'volume', label: 'Application', field: 'application' },
    idsIn: ({ volumeIds }) => volumeIds,
    of: ({ application }) => application,
    see(_estate, intent) {
      const to = applicationOf(intent.application)
      return {
        to,
        words: what => `Say that ${what} serve ${to ?? 'none'}`,
        nameOf: said => said ?? 'none',
        checks: [],
      }
    },
    keep: (records, volumeIds, application) => records.setApplication(volumeIds, application),
  }),
}
