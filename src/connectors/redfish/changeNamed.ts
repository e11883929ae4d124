import type { ValidateFunction } from 'ajv'
import type { Change, Connection } from './Connection'
import { OtherObject } from './errors'

/**
 * Changes what is expected at a place by its name, as it was read.
 * @param look says what is to be done with it
 * @throws {OtherObject} where something else stands there
 */
export const changeNamed = <T extends { readonly Name: string }>(
  connection: Connection,
  locator: string,
  isAnswer: ValidateFunction<T>,
  expectedName: string,
  look: (found: T) => Change,
) =>
  connection.changeAsRead(locator, isAnswer, found => {
    if (found.Name !== expectedName) throw new OtherObject(locator, expectedName, found.Name)
    return look(found)
  })
