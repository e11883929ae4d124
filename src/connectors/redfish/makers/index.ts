import type { VolumeLimits } from '@/core/estate'
import type { ShareLimitsWanted, ShareRightsWanted, SignInAsked, SignInSecrets } from '@/ports'
import type { Maker, OwnPart, OwnRequests, SpreadStated } from './Maker'
import { ferrow } from './ferrow'
import { mirefield } from './mirefield'
import { tallisThorne } from './tallisThorne'

export type { OwnRequests, SpreadStated } from './Maker'

/** By the name under which a maker keeps its own parts. A further maker is a file beside these and a line here. */
const makers: Readonly<Record<string, Maker>> = { Mirefield: mirefield, Ferrow: ferrow, TallisThorne: tallisThorne }

/**
 * The schema of what makers add to a resource. A bad part is not passed over: a drive on which an earlier use has left something, told
 * in a way that nobody understands, would else pass for an empty one.
 */
export const ownPartsOf = (part: OwnPart) =>
  ({
    type: 'object',
    properties: Object.fromEntries(Object.entries(makers).map(([name, maker]) => [name, maker.parts[part] ?? {}])),
  }) as { readonly type: 'object' }

/** A maker by the name that its systems state: what is no letter or digit has no place in the name of an own part. */
function named(maker: string): Maker | undefined {
  const name = maker.replace(/[^A-Za-z0-9]/g, '')
  return Object.hasOwn(makers, name) ? makers[name] : undefined
}

interface Owned {
  readonly Oem?: object
}

/** Reads a maker's own part of a resource; undefined where the resource has none of a maker that is known. */
function read<T>(body: Owned, reading: (maker: Maker, own: unknown) => T | undefined): T | undefined {
  for (const [name, own] of Object.entries(body.Oem ?? {})) {
    const maker = Object.hasOwn(makers, name) ? makers[name] : undefined
    if (maker !== undefined) return reading(maker, own)
  }
  return undefined
}

const ownBody = (maker: string, part: object | undefined): object =>
  part === undefined ? {} : { Oem: { [maker.replace(/[^A-Za-z0-9]/g, '')]: part } }

/** What makers state beyond the standard, and what holds where none states anything. */
export const ofMaker = {
  drive: (body: Owned) =>
    read(body, (maker, own) => maker.drive?.(own)) ?? { isBoot: false, driveWritesPerDay: null, leftOver: null },
  computer: (body: Owned) =>
    read(body, (maker, own) => maker.computer?.(own)) ?? { mostCapacityDrives: 0, agentAddress: null },
  interface: (body: Owned) =>
    read(body, (maker, own) => maker.interface?.(own)) ?? { carriesStorage: false, traffic: [], isReserved: false },
  vlans: (body: Owned) => read(body, (maker, own) => maker.vlans?.(own)) ?? [],
  lostBytes: (body: Owned) => read(body, (maker, own) => maker.lostBytes?.(own)) ?? 0n,
  volumeLimits: (body: Owned) => read(body, (maker, own) => maker.volumeLimits?.(own)) ?? null,
  /** What a request to limit a volume is; undefined where the maker takes none. */
  volumeLimitsBody: (maker: string, limits: VolumeLimits): object | undefined => {
    const part = named(maker)?.volumeLimitsPart?.(limits)
    return part === undefined ? undefined : ownBody(maker, part)
  },
  signIn: (body: Owned): SignInAsked | undefined => read(body, (maker, own) => maker.signIn?.(own)),
  /** What a request about an initiator's sign-in is; undefined where the maker has no words for it. */
  signInBody: (maker: string, secrets: SignInSecrets | null): object | undefined => {
    const part = named(maker)?.signInPart?.(secrets)
    return part === undefined ? undefined : ownBody(maker, part)
  },
  spread: (body: Owned): SpreadStated | undefined => read(body, (maker, own) => maker.spread?.(own)),
  heldUntil: (body: Owned) => read(body, (maker, own) => maker.heldUntil?.(own)) ?? null,
  /** What a request to move adds; nothing where the maker takes no rate. */
  moveRate: (maker: string, ratePercent: number): object => named(maker)?.moveRate?.(ratePercent) ?? {},
  partners: (body: Owned): readonly string[] => read(body, (maker, own) => maker.partners?.(own)) ?? [],
  mirrorPartner: (body: Owned) => read(body, (maker, own) => maker.mirrorPartner?.(own)),
  /** What a request for a mirror adds; undefined where the maker has no words for it. */
  mirrorBody: (maker: string, partner: string, ratePercent: number): object | undefined => {
    const part = named(maker)?.mirrorPart?.(partner, ratePercent)
    return part === undefined ? undefined : ownBody(maker, part)
  },
  fileService: (body: Owned) => read(body, (maker, own) => maker.fileService?.(own)),
  shareRights: (body: Owned): ShareRightsWanted | undefined => read(body, (maker, own) => maker.shareRights?.(own)),
  serviceGrants: (body: Owned) => read(body, (maker, own) => maker.serviceGrants?.(own)) ?? [],
  shareLimits: (body: Owned) =>
    read(body, (maker, own) => maker.shareLimits?.(own)) ?? { quotas: [], fileRules: [], quotaUsage: [] },
  /** What a request about a share adds; nothing where the maker has no words for it. */
  shareBody: (maker: string, rights: ShareRightsWanted): object => ownBody(maker, named(maker)?.sharePart?.(rights)),
  snapshotDirectory: (body: Owned) => read(body, (maker, own) => maker.snapshotDirectory?.(own)) ?? null,
  /** What a request to show snapshots of a share is; undefined where the maker has no directory for them. */
  snapshotDirectoryBody: (maker: string, isShown: boolean): object | undefined => {
    const part = named(maker)?.snapshotDirectoryPart?.(isShown)
    return part === undefined ? undefined : ownBody(maker, part)
  },
  limitsBody: (maker: string, limits: ShareLimitsWanted): object => ownBody(maker, named(maker)?.limitsPart?.(limits)),
  work: (body: Owned) => read(body, (maker, own) => maker.work?.(own)),
  /** What may be asked of systems of a maker that the standard has no words for. */
  requests: (maker: string): OwnRequests | undefined => named(maker)?.requests,
}
