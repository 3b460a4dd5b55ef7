/** What the server said no to, by field. `away` is true where it did not answer, or could not reach its records. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly fields: Record<string, string> = {},
    readonly away = false,
    readonly status = 0,
  ) {
    super(message)
  }
}
