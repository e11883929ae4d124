interface Check {
  (value: never): unknown
  errors?: unknown
}

/**
 * A check that is made when it is first used: a schema takes milliseconds to compile, and a process has hundreds of them of which it
 * may need a few.
 */
export function later<C extends Check>(make: () => C): C {
  let made: C | undefined
  const check = ((value: never) => {
    made ??= make()
    const answer = made(value)
    check.errors = made.errors
    return answer
  }) as C
  return check
}
