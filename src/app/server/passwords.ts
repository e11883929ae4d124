import { hash, verify } from '@node-rs/argon2'
import { passwordRules } from '@/ui/access/passwordRules'
import { AccessRefused } from './errors'

/** OWASP's least parameters for argon2id, doubled in memory: about 40 ms here. */
const parameters = { memoryCost: 38_912, timeCost: 2, parallelism: 1 }
/** Compared with where a name is unknown, so that the answer takes as long as for a known one. */
const nobody = hash('nobody has this password', parameters)

/** @throws {AccessRefused} where the password breaks a rule */
export async function passwordHash(password: string, name: string): Promise<string> {
  const broken = passwordRules(password, name).find(rule => !rule.holds)
  if (broken !== undefined)
    throw new AccessRefused(
      422,
      'access.password-weak',
      'The password was not taken.',
      `${broken.words}: this one does not.`,
      'Choose another password.',
    )
  return hash(password, parameters)
}

export async function isPassword(stored: string | undefined, password: string): Promise<boolean> {
  const matches = await verify(stored ?? (await nobody), password)
  return stored !== undefined && matches
}
