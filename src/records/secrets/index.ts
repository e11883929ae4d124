export { keyAt, ownKey, seal, unseal } from './seal'
export { keepSecret, openSecret, secretPurposes, type SecretPurpose } from './keptSecrets'
