/**
 * Does one thing after another, each by itself: what fails keeps none of the others from being done.
 * @throws the first failure, once all have been tried
 */
export async function eachByItself(works: readonly (() => Promise<unknown>)[]): Promise<void> {
  const failed: unknown[] = []
  for (const work of works)
    try {
      await work()
    } catch (cause) {
      failed.push(cause)
    }
  if (failed.length > 0) throw failed[0]
}
