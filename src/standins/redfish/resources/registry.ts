export const registryId = 'Base.1.18'

const entry = (Message: string, Severity: 'OK' | 'Warning' | 'Critical', argumentCount = 0) => ({
  Description: Message,
  Message,
  Severity,
  MessageSeverity: Severity,
  NumberOfArgs: argumentCount,
  ParamTypes: Array.from({ length: argumentCount }, () => 'string'),
  Resolution: 'See the message that is sent beside it.',
})

/** The messages of the standard's base registry that this service sends, in words of its own. Source: DSP8011 names them. */
export const registryEntries = {
  ResourceMissingAtURI: entry('Nothing is at %1.', 'Critical', 1),
  ResourceInUse: entry('The state of the resource does not allow it.', 'Warning'),
  PropertyMissing: entry('%1 is missing.', 'Warning', 1),
  PropertyUnknown: entry('%1 is not known.', 'Warning', 1),
  PropertyValueTypeError: entry('%1 is of another type.', 'Warning', 1),
  PropertyValueNotInList: entry('%1 is none of its values.', 'Warning', 1),
  PropertyValueIncorrect: entry('%1 cannot be used.', 'Warning', 1),
  QueryNotSupported: entry('%1 is not offered.', 'Warning', 1),
  QueryParameterValueError: entry('%1 cannot be used.', 'Warning', 1),
  OperationNotAllowed: entry('The method is not offered there.', 'Critical'),
  PreconditionFailed: entry('The resource is not what it was.', 'Critical'),
  NoValidSession: entry('Nobody has signed in.', 'Critical'),
  MalformedJSON: entry('The body is not JSON.', 'Critical'),
  GeneralError: entry('The request was not carried out.', 'Critical'),
  InternalError: entry('The service has failed.', 'Critical'),
  ServiceTemporarilyUnavailable: entry('The service is busy.', 'Critical'),
} as const
