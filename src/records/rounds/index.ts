export { keepRound, rounds, sinceLatestRound } from './rounds'
