import type { HostSignIn } from '@/ports'
import { row, run, type Scope } from '../database'

/** What a host is asked for where it logs in. */
export async function hostSignIn(scope: Scope, hostId: string): Promise<HostSignIn> {
  const found = await row<HostSignIn>(
    scope,
    `select sign_in as "signIn", sign_in_secret_id as "secretId", system_secret_id as "systemSecretId" from hosts where id = $1`,
    [hostId],
  )
  return found ?? { signIn: 'nothing', secretId: null, systemSecretId: null }
}

export const setHostSignIn = (scope: Scope, hostId: string, kept: HostSignIn): Promise<void> =>
  run(scope, 'update hosts set sign_in = $2, sign_in_secret_id = $3, system_secret_id = $4 where id = $1', [
    hostId,
    kept.signIn,
    kept.secretId,
    kept.systemSecretId,
  ])
