import { sequentialBytesPerSecond, type Drive, type NodePort, type SpreadSchemeText } from '../estate'
import { storageShare } from '../network'
import type { SharedPart } from '../transfer'
import { piecesOf, stripeSetCount, widthOf } from './scheme'

/** Of a drive's and a link's rate that hosts leave to making pieces anew and to moving them. */
const rebuildShare = 0.5

/**
 * How much longer the fullest of some drives has to work than the mean of them, where pieces fall on them by chance: the expected
 * largest of n Poisson counts, by the normal approximation.
 * @param drives that share the work (count), @param piecesOfDrive on each of them, on average (count)
 * @see Cramér 1946, 28.6, for the expected extreme of n normal variables
 */
export function unevenness(drives: number, piecesOfDrive: number): number {
  if (drives < 3 || !(piecesOfDrive > 0)) return 1
  const reach = Math.sqrt(2 * Math.log(drives))
  const deviations = reach - (Math.log(Math.log(drives)) + Math.log(4 * Math.PI)) / (2 * reach)
  return 1 + Math.max(0, deviations) / Math.sqrt(piecesOfDrive)
}

/**
 * How fast pieces are made anew on what is left, counted in lost bytes a second: for each, the needed pieces are read and one is
 * written, and all of it crosses the network. Every remaining drive and link takes its part, the unluckiest of them sets the pace.
 * @param lostDrives whose pieces are made anew (count)
 */
export function spreadRebuild(
  remaining: readonly Drive[],
  ports: readonly NodePort[],
  scheme: SpreadSchemeText,
  lostDrives = 1,
): SharedPart[] {
  const passes = piecesOf(scheme).needed + 1
  const drives = remaining.reduce((sum, drive) => sum + sequentialBytesPerSecond(drive), 0)
  const lostPieces = (stripeSetCount * widthOf(scheme) * lostDrives) / (remaining.length + lostDrives)
  const uneven = unevenness(remaining.length, (lostPieces * passes) / Math.max(1, remaining.length))
  return [
    { name: 'drives', bytesPerSecond: (drives * rebuildShare) / passes / uneven },
    { name: 'network', bytesPerSecond: (linkBytesPerSecond(ports) * rebuildShare) / passes },
  ]
}

/** How fast whole pieces move from drive to drive: read once, written once, over the network once. */
export function spreadMove(
  sources: readonly Drive[],
  targets: readonly Drive[],
  ports: readonly NodePort[],
  share = rebuildShare,
): SharedPart[] {
  const rate = (drives: readonly Drive[]) =>
    drives.reduce((sum, drive) => sum + sequentialBytesPerSecond(drive), 0) * share
  return [
    { name: 'drives that give', bytesPerSecond: rate(sources) },
    { name: 'drives that take', bytesPerSecond: rate(targets) },
    { name: 'network', bytesPerSecond: linkBytesPerSecond(ports) * share },
  ]
}

/** What the storage ports carry together when all else on them is busy too. */
const linkBytesPerSecond = (ports: readonly NodePort[]) =>
  ports.reduce((sum, port) => sum + (port.speedBitsPerSecond / 8) * storageShare(port.traffic), 0)
