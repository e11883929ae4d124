export { objectById } from './objectPage'
export { objectList, type ObjectQuestion } from './objectList'
export { addSite } from './addSite'
export {
  applications,
  drives,
  enclosures,
  hostGroups,
  hosts,
  nodesOfAll,
  pools,
  sites,
  systems,
  unassigned,
} from './estatePage'
export { driveById } from './driveById'
export { driveCounts, driveList, drivesBySystem, type DriveQuestion, type SystemDrives } from './driveList'
export { search } from './search'
export { systemPage } from './systemPage'
export { volumeList, type VolumeQuestion } from './volumeList'
export { volumePage } from './volumePage'
export { volumeCopies } from './volumeCopies'
export { classUses, type ClassUse } from './classUses'
export { capacityShares } from './capacityShares'
export { leftBehind } from './leftBehind'
export { poolGrowth, poolLevels, poolsByDate } from './capacityPage'
export { poolFacts, volumeFacts } from './ruleFacts'
export { todayNow } from './todayNow'
export { boardPage } from './boardPage'
export { monthReport, reportMonths } from './monthReport'
export { threadPage } from './threadPage'
export { hostWays } from './hostWays'
export { healthPage } from './healthPage'
export { againstPromise, slowest, volumeLoad } from './performancePage'
export { pieceWorks, rowNetwork, rowSystemIds, standingFindings, type RowNetwork } from './rowPage'
export { personPage, somebody } from './personPage'
export { filesPage } from './filesPage'
export { sharePage } from './sharePage'
export { connectionPage } from './connectionPage'
export { grantPage } from './grantPage'
export { unknownHosts } from './unknownHosts'
