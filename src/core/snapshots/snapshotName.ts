const mostLetters = 63

/** A moment in UTC to the second, as it stands in names. */
export const momentWord = (at: Date): string =>
  at.toISOString().slice(0, 19).replaceAll('-', '').replaceAll(':', '').replace('T', '-')

/** The name of a volume's snapshot: the volume's, cut where it is long, and the moment in UTC to the second. */
export function snapshotName(volumeName: string, at: Date): string {
  const moment = momentWord(at)
  return `${volumeName.slice(0, mostLetters - moment.length - 1).replace(/[._-]+$/, '')}.${moment}`
}
