export { columnOf, columnsOf, columnTypes, modelOf, tableOf } from './kindModel'
export { inOrder, object, objectCount, objects, type Which } from './objects'
