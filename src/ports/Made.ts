/** What a request for something new has led to: it is there, or it will be once the task is done. */
export interface Made {
  readonly locator: string
  readonly task: string | null
}
