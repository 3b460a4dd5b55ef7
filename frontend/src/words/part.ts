/** The catalogue of the front end's words: `en/<part>.ts`, one part for each feature, loaded with the feature that says it. */
import { setupI18n, type Messages } from '@lingui/core'
import type { Wanted } from './placeholders'
import { pseudo } from './pseudo'

/** Set to `pseudo` in the browser's storage, every word of the catalogue stands in brackets: what stands bare has escaped it. */
const LOCALE_KEY = 'fidicula.words'
const LOCALE = globalThis.localStorage?.getItem(LOCALE_KEY) === 'pseudo' ? 'pseudo' : 'en'

const catalogue = setupI18n({ locale: LOCALE })

/** A part's messages, and the function that says one of them: each placeholder is given by its name. */
export function part<Words extends Record<string, string>>(name: string, words: Words) {
  const plain: Record<string, string> = {}
  const messages: Messages = {}
  // The compiler leaves a message without placeholders as it is, which the library takes for one that was not compiled.
  for (const [key, compiled] of Object.entries<Messages[string]>(words)) {
    const message = LOCALE === 'pseudo' ? pseudo(compiled) : compiled
    if (typeof message === 'string') plain[key] = message
    else messages[`${name}.${key}`] = message
  }
  catalogue.load(LOCALE, messages)
  return <Key extends keyof Words & string>(key: Key, ...[values]: Wanted<Words[Key]>): string =>
    plain[key] ?? catalogue._(`${name}.${key}`, values)
}
