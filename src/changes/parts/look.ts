import { byId, suffixOf, type Estate } from '@/core/estate'
import type { ObjectRead } from '@/core/plan'

/** What plans look at, by the word that a change's record has for it. */
const words = {
  systems: 'system',
  volumes: 'volume',
  snapshots: 'snapshot',
  serviceClasses: 'service class',
  consistencyGroups: 'consistency group',
  pools: 'pool',
  drives: 'drive',
  nodes: 'node',
  switchPorts: 'switch port',
  hostGroups: 'host group',
  hosts: 'host',
  fileServices: 'file service',
  fileSystems: 'file system',
  shares: 'share',
  directories: 'directory',
  principals: 'person or group',
  routes: 'route',
  rules: 'rule',
  nodePorts: 'port',
} as const
type Kind = keyof typeof words
type One<K extends Kind> = Estate[K][number]

/** Looks things up for a plan and records what it has looked at, with the revision: what the plan rests on. */
export interface Look {
  readonly one: <K extends Kind>(kind: K, id: string | null | undefined) => One<K> | undefined
  /** Those of some ids that are there, each once. */
  readonly some: <K extends Kind>(kind: K, ids: readonly string[]) => One<K>[]
  /** Records what has been found in another way. */
  readonly at: <K extends Kind>(kind: K, found: readonly One<K>[]) => void
  readonly reads: readonly ObjectRead[]
}

/** @param estate the slice that the plan is made on */
export function lookInto(estate: Estate): Look {
  const reads = new Map<string, ObjectRead>()
  const note = (kind: Kind, object: One<Kind>) => {
    const { id, revision } = object
    // What a drive is called where it stands says less than what is written on it.
    const name = 'serial' in object && kind === 'drives' ? `drive ${suffixOf(object.serial)}` : object.name
    reads.set(id, { kind: words[kind], id, name, revision })
  }
  const one = <K extends Kind>(kind: K, id: string | null | undefined): One<K> | undefined => {
    const found = byId<One<K>>(estate[kind] as readonly One<K>[], id ?? undefined)
    if (found !== undefined) note(kind, found)
    return found
  }
  return {
    one,
    some: (kind, ids) => [...new Set(ids)].flatMap(id => one(kind, id) ?? []),
    at: (kind, found) => found.forEach(each => note(kind, each)),
    get reads() {
      return [...reads.values()]
    },
  }
}
