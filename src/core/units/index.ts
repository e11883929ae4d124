export { bytesInWords, formatBytes, tebibytes, type BytesInWords } from './formatBytes'
export { parseBytes, type ParsedBytes } from './parseBytes'
export { formatSeconds, formatSecondsRange } from './formatTime'
export { oddsInWords } from './formatProbability'
