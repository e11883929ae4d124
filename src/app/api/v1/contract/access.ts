import { idSchema } from '@/core/estate'
import type { Operation } from './Operation'
import { instant, many, object, text } from './shapes'

const auditEntry = object({
  id: { type: 'integer' },
  at: { type: 'string' },
  who: text(),
  address: { type: ['string', 'null'] },
  action: text(),
  subject: text(),
  detail: text(10_000),
  previousHash: { type: 'string', pattern: '^[0-9a-f]{64}$' },
  hash: { type: 'string', pattern: '^[0-9a-f]{64}$' },
})
const administrator = object({ id: idSchema, name: text(), madeAt: { type: 'string' } })
const token = object({ id: idSchema, name: text(), madeAt: { type: 'string' }, usedAt: instant })
/** Who may come in, and who did what. */
export const accessOperations = {
  listAudit: {
    method: 'get',
    path: '/audit',
    summary: 'Who did what, newest first',
    query: {
      before: { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER },
      limit: { type: 'integer', minimum: 1, maximum: 500 },
    },
    answers: many(auditEntry),
  },
  checkAudit: {
    method: 'get',
    path: '/audit/check',
    summary: 'Whether every entry of the record follows from the one before it',
    answers: object({ firstBroken: { type: ['integer', 'null'] } }),
  },
  exportAudit: { method: 'get', path: '/audit.jsonl', summary: 'The whole record as JSON lines, oldest first' },
  listAdministrators: {
    method: 'get',
    path: '/administrators',
    summary: 'All administrators',
    answers: many(administrator),
  },
  addAdministrator: {
    method: 'post',
    path: '/administrators',
    summary: 'Add an administrator',
    right: 'administer',
    body: object({ name: text(63), password: { type: 'string', maxLength: 500 } }),
    answers: object({ id: idSchema }),
    status: 201,
  },
  removeAdministrator: {
    method: 'delete',
    path: '/administrators/{id}',
    summary: 'Remove an administrator and end its sessions',
    right: 'administer',
    status: 204,
  },
  changePassword: {
    method: 'put',
    path: '/password',
    summary: 'Change your own password; your other sessions end',
    body: object({ current: { type: 'string', maxLength: 500 }, wanted: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  listTokens: { method: 'get', path: '/tokens', summary: 'Your bearer tokens', answers: many(token) },
  makeToken: {
    method: 'post',
    path: '/tokens',
    summary: 'Make a bearer token; it is shown this once',
    body: object({ name: { type: 'string', minLength: 1, maxLength: 80 } }),
    answers: object({ token: text() }),
    status: 201,
  },
  revokeToken: { method: 'delete', path: '/tokens/{id}', summary: 'Withdraw a bearer token', status: 204 },
  firstAdministrator: {
    method: 'post',
    path: '/first-administrator',
    summary: 'Set the first administrator, with the code that the start printed',
    isOpen: true,
    body: object({ code: text(40), name: text(63), password: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  signIn: {
    method: 'post',
    path: '/session',
    summary: 'Sign in for the interface',
    isOpen: true,
    body: object({ name: text(63), password: { type: 'string', maxLength: 500 } }),
    status: 204,
  },
  signOut: { method: 'delete', path: '/session', summary: 'Sign out', status: 204, isOpen: true },
} as const satisfies Readonly<Record<string, Operation>>
