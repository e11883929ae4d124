import type { Asked } from '@/app/server/answer'
import { AccessRefused, NotThere } from '@/app/server/errors'
import { isPassword, passwordHash } from '@/app/server/passwords'
import {
  addAdministrator,
  administrators,
  closeOtherSessions,
  makeToken,
  passwordHashOf,
  removeAdministrator,
  revokeToken,
  setPasswordHash,
  succeeded,
  tokensOf,
} from '@/records/access'
import { counted, nameRule, wrongName } from './door'

/** Who may come in, and by what. */
export const accessHandlers = {
  listAdministrators: async ({ scope }: Asked) => ({ items: await administrators(scope) }),
  async addAdministrator({ body, noted }: Asked) {
    const name = String(body['name'])
    if (!nameRule.test(name)) throw wrongName('The administrator was not added.')
    const hashed = await passwordHash(String(body['password']), name)
    return noted({ action: 'administrator.added', subject: `administrator ${name}` }, async inside => {
      const id = await addAdministrator(inside, name, hashed)
      if (id !== undefined) return { id }
      throw new AccessRefused(
        409,
        'access.name-taken',
        'The administrator was not added.',
        `${name} is there already.`,
        'Choose another name.',
      )
    })
  },
  async removeAdministrator({ id, scope, noted }: Asked) {
    const name = (await administrators(scope)).find(each => each.id === id)?.name ?? id
    await noted({ action: 'administrator.removed', subject: `administrator ${name}` }, async inside => {
      if (await removeAdministrator(inside, id)) return
      throw new AccessRefused(
        409,
        'access.last-administrator',
        'The administrator was not removed.',
        'It is the last one, or it is gone already.',
        'Add another administrator first.',
      )
    })
  },
  async changePassword(asked: Asked) {
    const { who, body, scope, address, noted } = asked
    // Counted like signing in: a session that somebody has left open must not serve to guess the password.
    const attempt = await counted(asked, { purpose: 'sign-in', name: who.name, address, device: who.by.id })
    const known = await passwordHashOf(scope, who.name)
    if (!(await isPassword(known?.passwordHash, String(body['current']))))
      throw new AccessRefused(
        403,
        'access.password-wrong',
        'The password was not changed.',
        'The present password is another one.',
        'Type it again; capitals count.',
      )
    const hashed = await passwordHash(String(body['wanted']), who.name)
    await noted({ action: 'administrator.password-changed', subject: `administrator ${who.name}` }, async inside => {
      await succeeded(inside, attempt)
      await setPasswordHash(inside, who.id, hashed)
      await closeOtherSessions(inside, who.id, who.by.id)
    })
  },
  listTokens: async ({ scope, who }: Asked) => ({ items: await tokensOf(scope, who.id) }),
  async makeToken({ who, body, noted }: Asked) {
    const name = String(body['name'])
    const act = { action: 'token.made', subject: `administrator ${who.name}`, detail: { name } }
    return noted(act, async inside => ({ token: await makeToken(inside, who.id, name) }))
  },
  async revokeToken({ id, who, scope, noted }: Asked) {
    const name = (await tokensOf(scope, who.id)).find(each => each.id === id)?.name ?? ''
    const act = { action: 'token.withdrawn', subject: `administrator ${who.name}`, detail: { name } }
    await noted(act, async inside => {
      if (!(await revokeToken(inside, who.id, id))) throw new NotThere('The token')
    })
  },
}
