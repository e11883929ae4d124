export { LeftLists } from './LeftLists'
export { leftSentence } from './leftWords'
export { WhatCounts } from './WhatCounts'
