export { WendrelError, type Refusal } from './WendrelError'
export { refusalOf, type CodedRefusal } from './refusalOf'
