import type { FileServiceEntity, SimulatedArray } from '../../array'
import { fileServices, instancesOf } from '../../files'
import type { Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { grantList, grantsBody, grantsIn } from './grants'
import { longText, text } from '../reader'

const texts = { type: 'array', maxItems: 16, items: text } as const
const newService = {
  type: 'object',
  required: ['Name', 'Instances'],
  properties: {
    Name: text,
    Description: longText,
    NameServers: texts,
    SearchSuffixes: texts,
    Instances: {
      type: 'array',
      minItems: 1,
      maxItems: 64,
      items: {
        type: 'object',
        required: ['Unit', 'Address', 'PrefixLength'],
        properties: { Unit: text, Address: text, PrefixLength: { type: 'integer', minimum: 0, maximum: 128 } },
      },
    },
  },
} as const

const changedService = {
  type: 'object',
  minProperties: 1,
  additionalProperties: false,
  properties: {
    Grants: grantList,
    Directory: {
      type: ['object', 'null'],
      required: ['Address', 'BaseDn', 'UserName', 'Password'],
      additionalProperties: false,
      properties: { Address: text, BaseDn: text, UserName: text, Password: text },
    },
  },
} as const

const type = 'FileService.v1_0_0.FileService'
interface Joined {
  readonly Address: string
  readonly BaseDn: string
  readonly UserName: string
  readonly Password: string
}
const joinedIn = ({ Address, BaseDn, UserName, Password }: Joined) => ({
  address: Address,
  baseDn: BaseDn,
  userName: UserName,
  password: Password,
})
export const fileServicesPath = 'Storage/1/Oem/FileServices'

const serviceBody = (array: SimulatedArray, each: FileServiceEntity): Body => ({
  Description: each.description,
  NameServers: each.nameServers,
  SearchSuffixes: each.searchSuffixes,
  Instances: instancesOf(array, each).map(({ unit, address, prefixLength, standsOn }) => ({
    Unit: unit,
    Address: address,
    PrefixLength: prefixLength,
    StandsOn: standsOn,
  })),
  Units: array.fileUnits.all(),
  Directory:
    each.joinedTo === undefined
      ? null
      : { BaseDn: each.joinedTo, Account: array.directory?.tree.computerDn(each.name) ?? null },
  Grants: grantsBody(each.grants),
})

/** Services by which hosts reach files. The standard has no resource for them: these are the makers' own. */
export function fileServicePlaces(array: SimulatedArray): Place[] {
  const body = (each: FileServiceEntity) => serviceBody(array, each)
  return placesOf<FileServiceEntity>({
    path: `${fileServicesPath}/:service`,
    type,
    title: 'File services',
    members: () => array.all('fileServices'),
    find: id => array.maybe('fileServices', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body,
    create: accepts(newService, wanted => {
      const { task } = fileServices.makeService(array, {
        name: wanted.Name,
        description: wanted.Description ?? '',
        nameServers: wanted.NameServers ?? [],
        searchSuffixes: wanted.SearchSuffixes ?? [],
        instances: wanted.Instances.map(each => ({
          unit: each.Unit,
          address: each.Address,
          prefixLength: each.PrefixLength,
        })),
      })
      return { task }
    }),
    change: accepts(changedService, ({ Directory, Grants }, each: FileServiceEntity) => {
      if (Grants !== undefined) fileServices.setGrants(array, each.id, grantsIn(Grants))
      if (Directory === undefined) return undefined
      const wanted = Directory as Joined | null
      fileServices.setDirectory(array, each.id, wanted === null ? null : joinedIn(wanted))
      return undefined
    }),
    remove: each => fileServices.removeService(array, each.id),
  })
}
