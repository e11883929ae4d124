export { startWorker } from './startWorker'
