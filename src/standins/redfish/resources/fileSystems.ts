import type { FileSystemEntity, SimulatedArray } from '../../array'
import { fileShares } from '../../files'
import { idIn, link, resource, type Body } from '../body'
import { accepts, placesOf, type Place } from '../Place'
import { longText, references, text } from '../reader'
import { fileSystemPath, sharePlaces } from './fileShares'

const newFileSystem = {
  type: 'object',
  required: ['Name', 'CapacitySources'],
  properties: {
    Name: text,
    Description: longText,
    CapacitySources: {
      type: 'array',
      minItems: 1,
      maxItems: 1,
      items: {
        type: 'object',
        required: ['ProvidingVolumes'],
        properties: {
          ProvidingVolumes: {
            type: 'object',
            required: ['Members'],
            properties: { Members: { ...references, minItems: 1, maxItems: 1 } },
          },
        },
      },
    },
  },
} as const
const fileSystemType = 'FileSystem.v1_4_0.FileSystem'

/** File systems on volumes, and what of them hosts may mount. Source: Swordfish, FileSystem and FileShare; the rules are the makers' own. */
export function fileSystemPlaces(array: SimulatedArray): Place[] {
  return [...wholePlaces(array), ...sharePlaces(array)]
}

const wholePlaces = (array: SimulatedArray): Place[] => {
  const body = (each: FileSystemEntity): Body => {
    const used = fileShares.usedOf(fileShares.readFileSystem(array, each.id).superblock)
    const { sizeBytes } = array.one('volumes', each.volumeId)
    return {
      Description: each.description,
      CapacitySources: [
        { Id: '0', Name: 'Source', ProvidingVolumes: { Members: [link(`Storage/1/Volumes/${each.volumeId}`)] } },
      ],
      Capacity: { Data: { ConsumedBytes: Number(used), ProvisionedBytes: Number(sizeBytes) } },
      ExportedShares: link(`${fileSystemPath(each.id)}/ExportedFileShares`),
    }
  }
  return placesOf<FileSystemEntity>({
    path: 'Storage/1/FileSystems/:fileSystem',
    type: fileSystemType,
    title: 'File systems',
    members: () => array.all('fileSystems'),
    find: id => array.maybe('fileSystems', id),
    idOf: each => each.id,
    nameOf: each => each.name,
    body,
    create: accepts(newFileSystem, wanted => {
      const volumeId = idIn(wanted.CapacitySources[0]?.ProvidingVolumes.Members[0])
      const made = fileShares.makeFileSystem(array, wanted.Name, wanted.Description ?? '', volumeId)
      return { made: resource(fileSystemPath(made.id), fileSystemType, made.id, made.name, body(made)) }
    }),
    remove: each => fileShares.removeFileSystem(array, each.id),
  })
}
