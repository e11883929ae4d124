import {
  nameAnswerSchema,
  nodePortSchema,
  nodeSchema,
  pathProbeSchema,
  probeSchema,
  switchPortSchema,
  switchSchema,
} from '@/core/estate'
import type { Operation } from './Operation'
import { list, many, object, text } from './shapes'

/** What is asked of systems, nodes and the name server. */
export const systemsOperations = {
  readNetwork: {
    method: 'get',
    path: '/systems/{id}/network',
    summary: 'The nodes of a row, their ports, the switches between them, and the last probe',
    answers: object({
      nodes: list(nodeSchema),
      nodePorts: list(nodePortSchema),
      switches: list(switchSchema),
      switchPorts: list(switchPortSchema),
      probe: { oneOf: [pathProbeSchema, { type: 'null' }] },
    }),
  },
  probePaths: {
    method: 'post',
    path: '/systems/{id}/path-probes',
    summary: 'Probe the paths between all nodes of a row now, with full frames',
    answers: pathProbeSchema,
    status: 201,
  },
  lookUpNames: {
    method: 'post',
    path: '/name-lookups',
    summary: 'Ask the estate’s name server for names and addresses, forward and reverse',
    body: object({ names: { ...list(text()), maxItems: 256 }, addresses: { ...list(text(64)), maxItems: 256 } }),
    answers: many(nameAnswerSchema),
  },
  identify: {
    method: 'post',
    path: '/identities',
    summary: 'See who answers at a management address, and by which certificate, before it is told anything',
    body: object({ address: text(500) }),
    answers: object({
      address: text(500),
      isEncrypted: { type: 'boolean' },
      certificateFingerprint: { type: ['string', 'null'] },
      certificateTrouble: { type: ['string', 'null'] },
      maker: { type: ['string', 'null'] },
      model: { type: ['string', 'null'] },
      uuid: { type: ['string', 'null'] },
      redfishVersion: text(),
    }),
  },
  lookAt: {
    method: 'post',
    path: '/probes',
    summary:
      'Look at a system whose identity was accepted, before registering it; credentials are kept sealed for a day',
    body: object(
      {
        address: text(500),
        userName: text(),
        password: { type: 'string', maxLength: 500 },
        acceptedFingerprint: { type: 'string', pattern: '^([0-9A-F]{2}(:[0-9A-F]{2}){31})?$' },
        isPlainHttpAccepted: { type: 'boolean' },
      },
      ['acceptedFingerprint', 'isPlainHttpAccepted'],
    ),
    answers: probeSchema,
    status: 201,
  },
} as const satisfies Readonly<Record<string, Operation>>
