import type { Catalogue, Estate, ObjectTypes, PathProbe, ServiceClass, Volume } from '@/core/estate'
import type { FileReport, FileSegment } from '@/core/filetree'
import type { Message } from '@/core/telling'
import type { FileScan, TwinFiles } from '@/core/views'
import type { Host } from './Host'
import type { NodeAgent } from './NodeAgent'
import type { ResourceName, SignInAsked, SystemResources, SystemTask } from './resources'
import type { StorageSystem } from './StorageSystem'
import type { Delivered } from './Teller'

/** Walks through the files of shares, as they are kept. */
interface FileScans {
  /** Begins one, or finds the one that was begun under a key, with what it has kept already. */
  readonly begin: (
    walk: { readonly shareId: string; readonly hostName: string; readonly seenAs: string; readonly at: Date },
    key: string,
  ) => Promise<{
    readonly id: string
    readonly at: Date
    readonly parts: number
    readonly files: number
    readonly bytes: number
    readonly lastPath: string
  }>
  readonly keepPart: (scanId: string, part: number, segment: FileSegment, lastPath: string) => Promise<void>
  /** Its parts, one after another. */
  readonly parts: (scanId: string) => AsyncIterable<FileSegment>
  readonly end: (
    scanId: string,
    found: { readonly report: FileReport; readonly twins: readonly TwinFiles[]; readonly at: Date },
  ) => Promise<void>
  readonly drop: (key: string) => Promise<void>
  /** The latest of a share that has come to its end. */
  readonly latest: (shareId: string) => Promise<FileScan | undefined>
}

/** What a host is asked for where it logs in, with the secrets that go with it. */
export interface HostSignIn {
  readonly signIn: SignInAsked
  readonly secretId: string | null
  readonly systemSecretId: string | null
}

/** Kinds that only Wendrel keeps. */
type OwnKind = 'routes' | 'rules' | 'directories'

/** What steps write into the records themselves; everything else is read from the systems after each step. */
export interface EstateWriter {
  /** Takes a probed system into the estate; safe to repeat. @returns its id */
  readonly enrolSystem: (probeId: string, name: string, siteId: string | null, key: string) => Promise<string>
  readonly forgetSystem: (systemId: string) => Promise<void>
  readonly enrolHost: (
    host: {
      readonly name: string
      readonly agentAddress: string
      readonly operatingSystem: string
      readonly initiators: readonly string[]
      readonly addresses?: readonly string[]
      readonly groupName: string
      readonly siteId: string | null
      /** Of the credential that is shown to it; null where none is asked for. */
      readonly secretId: string | null
    },
    key: string,
  ) => Promise<string>
  /** Says where hosts stand; null takes it back. */
  readonly placeHosts: (hostIds: readonly string[], siteId: string | null) => Promise<void>
  /** By what a host proves itself; what it was before goes with the next one. */
  readonly setHostSignIn: (hostId: string, kept: HostSignIn) => Promise<void>
  readonly hostSignIn: (hostId: string) => Promise<HostSignIn>
  /** Takes hosts without an agent into the estate, and their groups where those are new; safe to repeat by its key. */
  readonly enrolHosts: (
    hosts: readonly {
      readonly name: string
      readonly groupName: string
      readonly initiators: readonly string[]
      readonly addresses: readonly string[]
    }[],
    key: string,
  ) => Promise<void>
  /** Takes a host out of the estate, or all that one step took in, and groups of which then nothing is left. */
  readonly dropHosts: (which: { readonly id: string } | { readonly enrolledBy: string }) => Promise<void>
  /** Reads a system anew into the records. */
  readonly collect: (systemId: string) => Promise<void>
  /**
   * Says that a volume stands on another system from now on, at a place where that has been read; its history and what is ours of it stay.
   * Safe to repeat. @returns false while nothing is known to stand there
   */
  readonly movedTo: (volumeId: string, systemId: string, locator: string) => Promise<boolean>
  readonly hold: (volumeId: string, until: Date) => Promise<void>
  readonly release: (volumeId: string) => Promise<void>
  /** What Wendrel keeps of snapshots beside what their system states; what is left out stays as it is. */
  readonly noteSnapshots: (
    snapshotIds: readonly string[],
    noted: { readonly reason?: string; readonly heldReason?: string | null; readonly goesAt?: Date | null },
  ) => Promise<void>
  /** Keeps a service class as it is given; safe to repeat by its key, which gives a new one its id. @returns its id */
  readonly keepClass: (kept: Omit<ServiceClass, 'id' | 'revision'>, id: string | null, key: string) => Promise<string>
  readonly dropClass: (id: string) => Promise<void>
  readonly setClass: (volumeIds: readonly string[], classId: string | null) => Promise<void>
  /** Says what volumes serve; null takes it back. */
  readonly setApplication: (volumeIds: readonly string[], application: string | null) => Promise<void>
  readonly noteShare: (
    shareId: string,
    notes: { readonly labels: readonly string[]; readonly warnPercent: number | null },
  ) => Promise<void>
  readonly setSchedule: (volumeIds: readonly string[], schedule: Volume['ownSchedule']) => Promise<void>
  readonly setImage: (volumeId: string, isImage: boolean) => Promise<void>
  /** Keeps a pool for the volumes of one application; null gives it to all. */
  readonly keepPool: (poolId: string, keptFor: string | null) => Promise<void>
  /**
   * Keeps an object of ours as it is given; safe to repeat by its key, which gives a new one its id.
   * @param secretId of a secret that goes with it; the one before stays where none is given. @returns its id
   */
  readonly keepOwn: <Name extends OwnKind>(
    name: Name,
    kept: Partial<Omit<ObjectTypes[Name], 'id' | 'revision'>>,
    id: string | null,
    key: string,
    secretId?: string | null,
  ) => Promise<string>
  /** Takes a secret away for good. */
  readonly dropSecret: (secretId: string) => Promise<void>
  readonly dropOwn: (name: OwnKind, id: string) => Promise<void>
  readonly fileScans: FileScans
  /** Reads a directory anew into the records. @param told with how many entries have come. @returns what could not be used */
  readonly readDirectory: (directoryId: string, told: (count: number) => Promise<void>) => Promise<readonly string[]>
  readonly keepPathProbe: (probe: PathProbe) => Promise<void>
  /** Lets a finding stand until a day; safe to repeat by its key. */
  readonly signException: (
    exception: {
      readonly findingKey: string
      /** How grave it may be; null for however grave. */
      readonly gravity: 'now' | 'soon' | 'note' | null
      readonly reason: string
      readonly until: Date
      readonly signedBy: string
    },
    key: string,
  ) => Promise<void>
  readonly withdrawException: (key: string) => Promise<void>
  readonly keepCatalogue: (catalogue: Catalogue, importedBy: string, key: string) => Promise<void>
  readonly dropCatalogue: (key: string) => Promise<void>
  readonly idAt: (systemId: string, locator: string) => Promise<string | undefined>
  /** Takes what was removed from a system out of the records, where the system no longer states it. */
  readonly gone: (systemId: string, locators: readonly string[]) => Promise<void>
  /** Takes all that is missing of a system out of the records. @returns how many objects */
  readonly forgetMissing: (systemId: string) => Promise<number>
  /** How many objects of a system are missing. */
  readonly missingCount: (systemId: string) => Promise<number>
}

/** Everything that a step or a proof may reach. */
export interface ChangePorts {
  readonly system: (systemId: string) => Promise<StorageSystem>
  /** One resource of a system. @throws {NotOffered} */
  readonly of: <N extends ResourceName>(systemId: string, name: N) => Promise<SystemResources[N]>
  /** A system that has been looked at but not yet registered. */
  readonly probedSystem: (probeId: string) => Promise<StorageSystem>
  /** A host through its agent. @param secretId of the credential that is shown to one that is not registered yet */
  readonly host: (agentAddress: string, secretId?: string) => Promise<Host>
  /** A secret that is used once, by the change that names it, which then drops it. */
  readonly joiningSecret: (secretId: string) => Promise<string>
  /** A secret by which a host, or its systems, prove themselves. */
  readonly chapSecret: (secretId: string) => Promise<string>
  readonly node: (agentAddress: string) => Promise<NodeAgent>
  /** Tells somebody by a route, at once. @param key the same each time the same message is sent */
  readonly tell: (routeId: string, message: Message, key: string) => Promise<Delivered>
  readonly records: EstateWriter
  readonly estate: () => Promise<Estate>
  /** Who made the change. */
  readonly madeBy: string
  readonly now: () => Promise<Date>
  /** Says how far the step is (0 to 1), from work done; also where a pause or a stop takes effect. */
  readonly progress: (doneRatio: number, words: string) => Promise<void>
  /** Keeps facts at once, before what they are about is done: a step that is cut off finds them when it runs again. */
  readonly keep: (facts: Readonly<Record<string, string>>) => Promise<void>
  /** Says that a system's work has ended, and by its own clock how long it took. */
  readonly waited: (task: SystemTask, words: string) => Promise<void>
  readonly signal: AbortSignal
}
