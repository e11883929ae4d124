/**
 * What part of a port storage gets when all that goes through it is busy: equal parts, as a switch without traffic classes gives.
 * @param otherTraffic names of the other traffic
 */
export const storageShare = (otherTraffic: readonly string[]) => 1 / (1 + otherTraffic.length)
