export { ThreadDrawing } from './ThreadDrawing'
export { ThreadMargin } from './ThreadMargin'
