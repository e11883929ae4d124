export { dropView, keepView, viewsAt } from './savedViews'
