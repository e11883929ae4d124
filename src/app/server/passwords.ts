import { hash, verify } from '@node-rs/argon2'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { passwordRules } from '@/core/access'
import { AccessRefused } from './errors'

/** OWASP's least parameters for argon2id, doubled in memory: about 40 ms here. */
const parameters = { memoryCost: 38_912, timeCost: 2, parallelism: 1 }
/** Compared with where a name is unknown, so that the answer takes as long as for a known one. */
const nobody = hash('nobody has this password', parameters)

/** Guesses that somebody who knows the lists needs, as a power of ten; below it a password is as good as on the list. */
const leastGuessesLog10 = 8
let judge: ZxcvbnFactory | undefined

/** Whether a password is one of those that everybody tries first, also with a few characters before, after or between. */
function isWellKnown(password: string, name: string): boolean {
  judge ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })
  return judge.check(password.slice(0, 100), [name, 'wendrel']).guessesLog10 < leastGuessesLog10
}

/** @throws {AccessRefused} where the password breaks a rule */
export async function passwordHash(password: string, name: string): Promise<string> {
  const broken = passwordRules(password, name).find(rule => !rule.holds)
  if (broken !== undefined) throw weak(`${broken.words}: this one does not.`)
  if (isWellKnown(password, name))
    throw weak('It is one of the passwords that are tried first, or differs from one by a few characters.')
  return hash(password, parameters)
}

const weak = (why: string) =>
  new AccessRefused(422, 'access.password-weak', 'The password was not taken.', why, 'Choose another password.')

export async function isPassword(stored: string | undefined, password: string): Promise<boolean> {
  const matches = await verify(stored ?? (await nobody), password)
  return stored !== undefined && matches
}
