import type { FromSchema, JSONSchema } from 'json-schema-to-ts'
import type { TaskEntity } from '../array'
import { resource, root, schemaOf, type Body } from './body'
import { reader } from './reader'

/** What the parts of an address name: the ids by the names that the path gives them. */
export type Ids = Readonly<Record<string, string>>

/** What a request has led to: something new, long work, or nothing to tell. */
export type Outcome =
  | { readonly made: Body; readonly headers?: Readonly<Record<string, string>> }
  | { readonly task: TaskEntity }
  | undefined

type Asked = (body: unknown, ids: Ids) => Outcome

/** An address of the service and what it answers: the form that every resource comes down to. */
export interface Place {
  /** Below the service root, with names for what stands there: `Chassis/:chassis/Drives/:drive`. */
  readonly path: string
  /** The versioned schema of what is shown, for the service's metadata. */
  readonly type?: string
  /** What is shown; undefined where nothing of these ids is there. Absent for what can only be asked, such as an action. */
  readonly show?: (ids: Ids) => Body | undefined
  /** What an action is of: a request that names another state than this one's is refused. */
  readonly subject?: (ids: Ids) => Body | undefined
  /** The members of a collection, where it is one. */
  readonly list?: (ids: Ids) => Listing | undefined
  readonly post?: Asked
  readonly patch?: Asked
  readonly remove?: (ids: Ids) => void
}

export interface Listing {
  readonly type: string
  readonly title: string
  readonly count: number
  readonly memberAt: (index: number) => Body
}

/** A request for one resource with a body of a known shape. */
export type Accepts<T> = (body: unknown, each: T, ids: Ids) => Outcome

type Shape<S> = S extends JSONSchema ? FromSchema<S> : never

/** @throws {Refused} 400 with the path of the fault, where the body is not of the schema */
export function accepts<const S extends object, T>(
  schema: S,
  carryOut: (wanted: Shape<S>, each: T, ids: Ids) => Outcome,
): Accepts<T> {
  const read = reader<Shape<S>>(schema)
  return (body, each, ids) => carryOut(read(body), each, ids)
}

/** One resource of the service: where it stands, what it shows and what it takes. From this follow its addresses and methods. */
export interface Resource<T> {
  /** Of a member; its collection stands one step above. */
  readonly path: string
  readonly type: string
  /** What the collection is called. */
  readonly title: string
  /** Undefined where what should hold the collection is not there. */
  readonly members: (ids: Ids) => readonly T[] | undefined
  /** One member, where that is quicker than looking through all. */
  readonly find?: (id: string, ids: Ids) => T | undefined
  readonly idOf: (each: T) => string
  readonly nameOf: (each: T) => string
  readonly body: (each: T, ids: Ids) => Body
  readonly create?: Accepts<undefined>
  readonly change?: Accepts<T>
  readonly remove?: (each: T) => void
  /** What may be done besides, by the action's name within its schema. */
  readonly actions?: Readonly<Record<string, Action<T>>>
}

interface Action<T> {
  readonly accepts: Accepts<T>
  /** Values that a parameter may have, for clients that look before they ask. */
  readonly allowable?: Readonly<Record<string, readonly string[]>>
}

/** The addresses of a resource: its collection, its members and their actions. */
export function placesOf<T>(kind: Resource<T>): Place[] {
  const { find, whole } = membersOf(kind)
  /** Hands on what is there; what is not there is told by the service. */
  const asked = (accept: Accepts<T>) => (body: unknown, ids: Ids) => {
    const each = find(ids)
    return each === undefined ? undefined : accept(body, each, ids)
  }
  const { create, change, remove } = kind
  const show = (ids: Ids) => {
    const each = find(ids)
    return each === undefined ? undefined : whole(each, ids)
  }
  const gone = (ids: Ids) => {
    const each = find(ids)
    if (each !== undefined) remove?.(each)
  }
  return [
    {
      path: kind.path.slice(0, kind.path.lastIndexOf('/:')),
      list: ids => listing(kind, ids, whole),
      ...(create === undefined ? {} : { post: (body, ids) => create(body, undefined, ids) }),
    },
    {
      path: kind.path,
      type: kind.type,
      show,
      ...(change === undefined ? {} : { patch: asked(change) }),
      ...(remove === undefined ? {} : { remove: gone }),
    },
    ...Object.entries(kind.actions ?? {}).map(([name, action]) => ({
      path: `${kind.path}/Actions/${schemaOf(kind.type)}.${name}`,
      subject: show,
      post: asked(action.accepts),
    })),
  ]
}

/** How a member is found by its address, and how it is shown. */
function membersOf<T>(kind: Resource<T>) {
  const own = kind.path.slice(kind.path.lastIndexOf('/:') + 2)
  const idIn = (ids: Ids) => ids[own] ?? ''
  const find = (ids: Ids) =>
    kind.find === undefined ? kind.members(ids)?.find(each => kind.idOf(each) === idIn(ids)) : kind.find(idIn(ids), ids)
  const whole = (each: T, ids: Ids) => {
    const id = kind.idOf(each)
    const at = pathWith(kind.path, { ...ids, [own]: id })
    return resource(at, kind.type, id, kind.nameOf(each), { ...kind.body(each, ids), ...shownActions(kind, at) })
  }
  return { find, whole }
}

function listing<T>({ type, title, members }: Resource<T>, ids: Ids, whole: (each: T, ids: Ids) => Body) {
  const all = members(ids)
  if (all === undefined) return undefined
  const collectionType = `${schemaOf(type)}Collection`
  return { type: collectionType, title, count: all.length, memberAt: (index: number) => whole(all[index] as T, ids) }
}

function shownActions<T>({ type, actions }: Resource<T>, at: string): Body {
  if (actions === undefined) return {}
  const shown = Object.entries(actions).map(([name, { allowable = {} }]) => {
    const named = `${schemaOf(type)}.${name}`
    const values = Object.entries(allowable).map(([parameter, all]) => [`${parameter}@Redfish.AllowableValues`, all])
    return [`#${named}`, { target: `${root}/${at}/Actions/${named}`, ...Object.fromEntries(values) }]
  })
  return { Actions: Object.fromEntries(shown) }
}

/** A resource that stands alone, such as a service. */
export const single = (path: string, type: string, name: string, body: () => Body): Place => ({
  path,
  type,
  show: () => resource(path, type, path.split('/').at(-1) ?? path, name, body()),
})

const pathWith = (path: string, ids: Ids) => path.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? '')

/** What a service shows at an address of its own; undefined where nothing stands there. */
export function shownAt(places: readonly Place[], address: string): Body | undefined {
  const parts = address.slice(root.length + 1).split('/')
  for (const { path, show } of places) {
    const names = path.split('/')
    if (show === undefined || names.length !== parts.length) continue
    if (!names.every((name, index) => name.startsWith(':') || name === parts[index])) continue
    const ids = names.flatMap((name, index) => (name.startsWith(':') ? [[name.slice(1), parts[index] ?? '']] : []))
    return show(Object.fromEntries(ids) as Ids)
  }
  return undefined
}
