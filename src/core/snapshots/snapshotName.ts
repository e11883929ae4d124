const mostLetters = 63

/** The name of a volume's snapshot: the volume's, cut where it is long, and the moment in UTC to the second. */
export function snapshotName(volumeName: string, at: Date): string {
  const moment = at.toISOString().slice(0, 19).replaceAll('-', '').replaceAll(':', '').replace('T', '-')
  return `${volumeName.slice(0, mostLetters - moment.length - 1).replace(/[._-]+$/, '')}.${moment}`
}
