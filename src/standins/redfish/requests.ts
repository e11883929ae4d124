import Ajv from 'ajv/dist/2020.js'
import type { FromSchema } from 'json-schema-to-ts'
import { badValue, raidTypes } from '../array'

/** Bodies that the array accepts; anything else is refused with the path of the fault. */
const ajv = new Ajv({ allErrors: true })
export const text = { type: 'string', minLength: 1, maxLength: 255 } as const
export const reference = { type: 'object', required: ['@odata.id'], properties: { '@odata.id': text } } as const
export const references = { type: 'array', items: reference } as const

const signIn = {
  type: 'object',
  required: ['UserName', 'Password'],
  properties: { UserName: text, Password: text },
} as const
const newPool = {
  type: 'object',
  required: ['Name', 'SupportedRAIDTypes', 'CapacitySources'],
  properties: {
    Name: text,
    Description: { type: 'string', maxLength: 500 },
    SupportedRAIDTypes: { type: 'array', minItems: 1, maxItems: 1, items: { enum: raidTypes } },
    CapacitySources: {
      type: 'array',
      minItems: 1,
      items: {
        type: 'object',
        required: ['ProvidingDrives'],
        properties: { ProvidingDrives: { type: 'object', required: ['Members'], properties: { Members: references } } },
      },
    },
    Capacity: {
      type: 'object',
      properties: {
        Snapshot: { type: 'object', properties: { AllocatedPercent: { type: 'number', minimum: 0, maximum: 90 } } },
      },
    },
    Links: { type: 'object', properties: { DedicatedSpareDrives: references } },
  },
} as const
const newVolume = {
  type: 'object',
  required: ['Name', 'CapacityBytes', 'CapacitySources'],
  properties: {
    Name: text,
    Description: { type: 'string', maxLength: 500 },
    CapacityBytes: { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER },
    ProvisioningPolicy: { enum: ['Thin', 'Fixed'] },
    CapacitySources: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: {
        type: 'object',
        required: ['ProvidingPools'],
        properties: {
          ProvidingPools: {
            type: 'object',
            required: ['Members'],
            properties: { Members: { ...references, minItems: 1, maxItems: 1 } },
          },
        },
      },
    },
  },
} as const
const changedVolume = {
  type: 'object',
  minProperties: 1,
  additionalProperties: false,
  properties: {
    DisplayName: text,
    CapacityBytes: { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER },
    Description: { type: 'string', maxLength: 500 },
  },
} as const
const newEndpoint = {
  type: 'object',
  required: ['Identifiers'],
  properties: {
    Identifiers: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: {
        type: 'object',
        required: ['DurableName'],
        properties: { DurableName: { type: 'string', pattern: '^iqn\\.[0-9]{4}-[0-9]{2}\\.' } },
      },
    },
  },
} as const
const newGroup = {
  type: 'object',
  required: ['Name', 'Endpoints'],
  properties: { Name: text, Description: { type: 'string' }, Endpoints: references },
} as const
const changedGroup = {
  type: 'object',
  required: ['Endpoints'],
  additionalProperties: false,
  properties: { Endpoints: references },
} as const
const newConnection = {
  type: 'object',
  required: ['VolumeInfo', 'Links'],
  properties: {
    Description: { type: 'string' },
    VolumeInfo: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: { type: 'object', required: ['Volume'], properties: { Volume: reference } },
    },
    Links: {
      type: 'object',
      required: ['InitiatorEndpointGroups'],
      properties: { InitiatorEndpointGroups: { ...references, minItems: 1, maxItems: 1 } },
    },
  },
} as const

export function reader<T>(schema: object): (body: unknown) => T {
  const isValid = ajv.compile<T>(schema)
  return body => {
    if (isValid(body)) return body
    const first = isValid.errors?.[0]
    throw badValue(
      'The request was not carried out.',
      `${first?.instancePath || 'The body'} ${first?.message ?? 'is not understood'}.`,
      'Correct the property and send it again.',
    )
  }
}

export const readSignIn = reader<FromSchema<typeof signIn>>(signIn)
export const readPool = reader<FromSchema<typeof newPool>>(newPool)
export const readVolume = reader<FromSchema<typeof newVolume>>(newVolume)
export const readVolumeChange = reader<FromSchema<typeof changedVolume>>(changedVolume)
export const readEndpoint = reader<FromSchema<typeof newEndpoint>>(newEndpoint)
export const readGroup = reader<FromSchema<typeof newGroup>>(newGroup)
export const readGroupChange = reader<FromSchema<typeof changedGroup>>(changedGroup)
export const readConnection = reader<FromSchema<typeof newConnection>>(newConnection)

/** The last part of a reference's path: the id of what it leads to. */
export const idIn = (to: { readonly '@odata.id': string } | undefined) => to?.['@odata.id'].split('/').at(-1) ?? ''
