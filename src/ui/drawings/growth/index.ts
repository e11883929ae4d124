export { GrowthChart } from './GrowthChart'
export { GrowthPicture } from './GrowthPicture'
export { Spark } from './Spark'
