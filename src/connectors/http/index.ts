export { exchange, type Endpoint, type Exchanged } from './exchange'
export { AnswerLate, CertificateChanged, NotReached, UnreadableAnswer } from './errors'
