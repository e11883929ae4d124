const pathRule = /^\/[A-Za-z0-9._-]+(?:\/[A-Za-z0-9._-]+)*$/
/** Places that a running system needs for itself. */
const ownPlaces = /^\/(?:|bin|boot|dev|etc|home|lib|lib64|proc|root|run|sbin|srv|sys|tmp|usr|var)$/

/** Whether a host's path can be said in a command without quotes, and leads nowhere else than it says. */
export const isPlainPath = (path: string): boolean =>
  pathRule.test(path) && !path.split('/').some(part => part === '..' || part === '.')

/** Whether something may be mounted there. */
export const isMountPoint = (path: string): boolean => isPlainPath(path) && !ownPlaces.test(path)

export const pathWords = 'Give an absolute path of letters, digits, dots, hyphens and underscores.'
