export interface Drives {
  readonly setLight: (locator: string, isOn: boolean) => Promise<void>
  readonly isLit: (locator: string) => Promise<boolean>
  /**
   * Erases tables and heads of file systems, or every sector. @returns the task
   * @throws {OtherObject} where another drive is in that bay than the one that is expected
   */
  readonly erase: (locator: string, expectedSerial: string, isWhole: boolean) => Promise<string | null>
  /** The latest task that erases or has erased a drive. */
  readonly erasing: (locator: string) => Promise<string | null>
}
