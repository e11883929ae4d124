import { v7 as uuid } from 'uuid'
import { row, run, type Scope } from '../database'
import { SecretUnreadable } from './errors'
import { seal, unseal } from './seal'

/** What a secret is for: it is opened for nothing else. */
export const secretPurposes = ['agent', 'route', 'directory', 'joining', 'chap'] as const
export type SecretPurpose = (typeof secretPurposes)[number]

/** Keeps a secret sealed, so that a draft can name it without holding it. What no change has used in a day goes. @returns its id */
export async function keepSecret(
  scope: Scope,
  key: Buffer,
  secret: { readonly text: string; readonly purpose: SecretPurpose; readonly madeBy: string },
): Promise<string> {
  const id = uuid()
  await run(scope, `delete from kept_secrets where used_at is null and made_at < now() - interval '1 day'`)
  // What a host proved itself by before it was given another: for a day it can still be set again.
  await run(
    scope,
    `delete from kept_secrets where purpose = 'chap' and used_at < now() - interval '1 day'
       and not exists (select from hosts where kept_secrets.id in (sign_in_secret_id, system_secret_id))`,
  )
  await run(scope, 'insert into kept_secrets (id, sealed, purpose, made_by) values ($1, $2, $3, $4)', [
    id,
    seal(key, secret.text, `${secret.purpose} ${id}`),
    secret.purpose,
    secret.madeBy,
  ])
  return id
}

/** Takes a secret away for good; one that is gone already is taken away. */
export const dropSecret = (scope: Scope, id: string): Promise<void> =>
  run(scope, 'delete from kept_secrets where id = $1', [id])

/** Opens a secret for what it was given for, and keeps it from then on. @throws {SecretUnreadable} */
export async function openSecret(scope: Scope, key: Buffer, id: string, purpose: SecretPurpose): Promise<string> {
  const found = await row<{ readonly sealed: Buffer }>(
    scope,
    'update kept_secrets set used_at = coalesce(used_at, now()) where id = $1 and purpose = $2 returning sealed',
    [id, purpose],
  )
  if (found === undefined)
    throw new SecretUnreadable('It is not there any more: one that is not used goes after a day.')
  return unseal(key, found.sealed, `${purpose} ${id}`)
}
