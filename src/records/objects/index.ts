export { columnOf, columnsOf, columnTypes, modelOf, tableOf } from './kindModel'
export { dropOwn, keepOwn, type Own, type OwnKind } from './keepOwn'
export { inOrder, object, objectCount, objects, type Which } from './objects'
