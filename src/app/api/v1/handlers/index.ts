import type { Handlers } from '@/app/server/answer'
import { openApiDocument } from '../openApiDocument'
import { accessHandlers } from './access'
import { auditHandlers } from './audit'
import { changeHandlers } from './changes'
import { doorHandlers } from './door'
import { estateHandlers } from './estate'
import { events } from './events'
import { fileHandlers } from './files'
import { kindHandlers } from './kinds'
import { metricHandlers } from './metrics'
import { peopleHandlers } from './people'
import { reviewHandlers } from './reviews'
import { roundHandlers } from './rounds'
import { secretHandlers } from './secrets'
import { settingHandlers } from './settings'
import { systemHandlers } from './systems'
import { viewHandlers } from './views'

/** What each operation of the contract does; the type sees to it that none is missing. */
export const handlers: Handlers = {
  ...accessHandlers,
  ...auditHandlers,
  ...changeHandlers,
  ...doorHandlers,
  ...estateHandlers,
  ...kindHandlers,
  ...settingHandlers,
  ...systemHandlers,
  ...peopleHandlers,
  ...viewHandlers,
  ...reviewHandlers,
  ...fileHandlers,
  ...roundHandlers,
  ...metricHandlers,
  ...secretHandlers,
  events,
  openApi: async () => openApiDocument(),
}
