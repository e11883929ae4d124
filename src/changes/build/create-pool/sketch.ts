import type { CreatePoolIntent as Intent } from '@/core/intents'
import { type Drive } from '@/core/estate'
import { poolDurability, reliabilityByMedia } from '@/core/durability'
import { capacityLadder, shareOf, type RaidLayout } from '@/core/layout'
import type { Sketch } from '@/core/plan'

/** What systems keep of raw for their own accounts, until they state it: a usual share, told apart from what is measured afterwards. */
const expectedMetadataRatio = 0.0075

const rebuildShare = 0.5

export function sketchOf(layout: RaidLayout, intent: Intent, chosen: readonly Drive[], rate: number): Sketch {
  const metadataBytes = shareOf(layout.rawBytes, expectedMetadataRatio)
  const ladder = capacityLadder({
    rawBytes: layout.rawBytes,
    spareBytes: layout.spareBytes,
    redundancyBytes: layout.redundancyBytes,
    strandedBytes: layout.strandedBytes,
    metadataBytes,
    snapshotReserveBytes: shareOf(layout.usableBytes - metadataBytes, intent.snapshotSharePercent / 100),
    writtenBytes: 0n,
  })
  return {
    of: 'pool',
    ladder: ladder.map(rung => ({
      name: rung.name,
      bytes: `${rung.bytes}`,
      takenBytes: `${rung.takenBytes}`,
      sum: rung.sum.map(item => ({ name: item.name, bytes: `${item.bytes}` })),
    })),
    groups: layout.groups.map(group => ({
      driveIds: group.driveIndexes.flatMap(index => chosen[index]?.id ?? []),
      words: groupWords(group.driveIndexes.length, intent),
    })),
    spareDriveIds: layout.spareIndexes.flatMap(index => chosen[index]?.id ?? []),
    durability: durabilityOf(layout, intent, chosen, rate),
  }
}

function durabilityOf(layout: RaidLayout, intent: Intent, chosen: readonly Drive[], rate: number) {
  const media = chosen.some(drive => drive.media === 'HDD') ? 'HDD' : 'SSD'
  const smallest = layout.groups.reduce((most, group) => (group.smallestBytes > most ? group.smallestBytes : most), 0n)
  const durability = poolDurability(
    layout.groupSizes,
    intent.scheme,
    smallest,
    rate * rebuildShare,
    reliabilityByMedia[media],
  )
  return {
    survives: durability.survivedLosses,
    oneYear: durability.oneYear,
    fiveYears: durability.fiveYears,
    rebuildHours: durability.rebuildHours,
    basis: `${(reliabilityByMedia[media].annualFailureRate * 100).toFixed(1)}% of ${media} drives fail in a year; independent failures; rebuilt at half a drive's rate`,
  }
}

const groupWords = (drives: number, { scheme }: Intent) =>
  scheme.kind === 'parity'
    ? `${drives - scheme.parityDrives} data + ${scheme.parityDrives} parity`
    : `${drives / scheme.copies} × ${scheme.copies} copies`
