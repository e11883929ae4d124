import Ajv from 'ajv/dist/2020.js'
import { later } from '@/core/input'
import type { WayFound } from '@/core/network'
import type { HostNetwork, HostResolver, ShareTried } from '@/ports'
import type { Asked } from './ask'

const ajv = new Ajv()
const compile = <T>(schema: object) => later(() => ajv.compile<T>(schema))
const address = { type: 'string', minLength: 1, maxLength: 64 }
const orNull = (schema: object) => ({ anyOf: [schema, { type: 'null' }] })
const milliseconds = { type: 'number', minimum: 0, maximum: 600_000 }
const domain = { type: 'string', minLength: 1, maxLength: 253 }
const whole = (properties: Readonly<Record<string, object>>) => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
})
const list = (items: object, maxItems: number) => ({ type: 'array', maxItems, items })

const isWay = compile<WayFound>(
  whole({
    name: whole({
      server: orNull(address),
      domain: orNull(domain),
      addresses: list(address, 64),
      keptSeconds: orNull({ type: 'integer', minimum: 0, maximum: 2_147_483_647 }),
      milliseconds,
    }),
    address: orNull(address),
    route: orNull(whole({ source: address, gateway: orNull(address) })),
    ports: list(
      whole({
        port: { type: 'integer', minimum: 1, maximum: 65_535 },
        isOpen: { type: 'boolean' },
        speaks: orNull({ type: 'string', maxLength: 64 }),
        milliseconds,
      }),
      16,
    ),
  }),
)
const why = orNull({ type: 'string', maxLength: 400 })
const isTried = compile<ShareTried>(whole({ mount: why, read: why, write: why }))
const isResolver = compile<HostResolver>(
  whole({ server: address, forwards: list(whole({ domain, server: address }), 256) }),
)

/** What is asked of a host about its way to servers. */
export const networkRequests = (asked: Asked): HostNetwork => ({
  way: server => asked('POST', '/agent/way', isWay, { server }),
  tryShare: (server, share, as) => asked('POST', '/agent/shares/try', isTried, { server, share, as }),
  resolver: () => asked('GET', '/agent/resolver', isResolver),
  setForward: async (domain, forward) => void (await asked('POST', '/agent/resolver', isResolver, { domain, forward })),
})
