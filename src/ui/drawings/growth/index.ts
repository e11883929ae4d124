export { GrowthChart } from './GrowthChart'
export { Spark } from './Spark'
