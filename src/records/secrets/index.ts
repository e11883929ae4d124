export { keyAt, ownKey, seal, unseal } from './seal'
export { dropSecret, keepSecret, openSecret, secretPurposes, type SecretPurpose } from './keptSecrets'
