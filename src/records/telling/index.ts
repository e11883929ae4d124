export { routeById } from './routes'
export { keepStandings, standingsOf } from './standings'
export {
  dropOldMessages,
  dueMessages,
  latestMessages,
  noteFailed,
  noteSent,
  queueMessage,
  type DueMessage,
} from './messages'
