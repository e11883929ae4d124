import { exportTable, mayFile, mayObject, type ExportRule, type FileOwner, type FileRequest } from '../access'

type ObjectInput = Parameters<typeof mayObject>
interface FileCase {
  readonly kind: 'file'
  readonly exportRules: readonly ExportRule[]
  readonly request: FileRequest
  readonly file: FileOwner
}
interface ObjectCase {
  readonly kind: 'object'
  readonly bucket: ObjectInput[0]
  readonly object: ObjectInput[1]
  readonly request: ObjectInput[2]
}

export const access = (input: FileCase | ObjectCase): unknown =>
  input.kind === 'file'
    ? mayFile(exportTable(input.exportRules), input.request, input.file)
    : mayObject(input.bucket, input.object, input.request)
