export { columnOf, columnsOf, columnTypes, modelOf, tableOf } from './kindModel'
export { object, objectCount, objects, type Which } from './objects'
