/** The names in a message: `{name}`, and those in and before the arms of a plural. */
type Names<Message extends string> = Message extends `${string}{${infer Within}}${infer Rest}` ? NamesWithin<Within> | Names<Rest> : never
type NamesWithin<Within extends string> = Within extends `${infer Before}{${infer Inner}` ? Single<Before> | NamesWithin<Inner> : Single<Within>
type Single<Words extends string> = Words extends `${infer Name}, plural,${string}` ? Name : Words extends `${string} ${string}` ? never : Words extends '' ? never : Words

/** What has to be given with a message: nothing, or a value for each of its names. */
export type Wanted<Message extends string> = [Names<Message>] extends [never] ? [] : [values: Record<Names<Message>, string | number | null | undefined>]
