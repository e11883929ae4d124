import { accessOperations } from './access'
import { changesOperations } from './changes'
import { estateOperations } from './estate'
import { fileOperations } from './files'
import { kindOperations, type KindOperationId } from './kinds'
import { metricOperations } from './metrics'
import type { Operation } from './Operation'
import { peopleOperations } from './people'
import { reviewOperations } from './reviews'
import { roundOperations } from './rounds'
import { secretOperations } from './secrets'
import { systemsOperations } from './systems'
import { viewOperations } from './views'

const table = {
  ...estateOperations,
  ...systemsOperations,
  ...peopleOperations,
  ...changesOperations,
  ...accessOperations,
  ...viewOperations,
  ...reviewOperations,
  ...fileOperations,
  ...roundOperations,
  ...metricOperations,
  ...secretOperations,
  events: { method: 'get', path: '/events', summary: 'Server-sent events: which records have changed' },
  openApi: { method: 'get', path: '/openapi.json', summary: 'This document', isOpen: true },
} as const satisfies Readonly<Record<string, Operation>>

export type OperationId = keyof typeof table | KindOperationId
/** What each operation of the API takes and answers: the one source of its checks and of the OpenAPI document. */
export const operations: Readonly<Record<OperationId, Operation>> = { ...kindOperations, ...table }
export { operationPath } from './kinds'
export { defaultBodyBytes, type Operation } from './Operation'
