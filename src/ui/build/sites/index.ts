export { AddSite } from './AddSite'
