import { compile } from '../schema'
import type { Maker } from './Maker'

const methods = { None: 'nothing', CHAP: 'one-way', MutualCHAP: 'mutual' } as const
/** Of endpoints: what is asked of an initiator. The words are Swordfish's, which has them at another place. */
export const endpointPart = {
  type: 'object',
  properties: {
    SignIn: {
      type: 'object',
      required: ['AuthenticationMethod'],
      properties: { AuthenticationMethod: { enum: ['None', 'CHAP', 'MutualCHAP'] } },
    },
  },
} as const
const isEndpointPart = compile(endpointPart)

/** Sign-ins of initiators, as makers state and take them. */
export const signIns = {
  signIn: own =>
    isEndpointPart(own) && own.SignIn !== undefined ? methods[own.SignIn.AuthenticationMethod] : undefined,
  signInPart: secrets => ({
    SignIn:
      secrets === null
        ? { AuthenticationMethod: 'None' }
        : {
            AuthenticationMethod: secrets.systemSecret === null ? 'CHAP' : 'MutualCHAP',
            InitiatorCHAPPassword: secrets.secret,
            ...(secrets.systemSecret === null ? {} : { TargetPassword: secrets.systemSecret }),
          },
  }),
} as const satisfies Partial<Maker>
