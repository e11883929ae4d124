export { kindList, kindOf, objectKinds, pageOf, titleOf } from './kinds'
export {
  fieldsOf,
  isLocated,
  type FieldOf,
  type KindList,
  type KindName,
  type ListColumn,
  type ObjectField,
  type ObjectKind,
  type ObjectTypes,
  type ValueType,
} from './ObjectKind'
