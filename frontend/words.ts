import { compileMessage } from '@lingui/message-utils/compileMessage'
import type { Plugin } from 'vite'

/** The catalogue's messages are read when the page is built, not in the browser: each file is JSON between `export default` and `as const`. */
export function compiledWords(): Plugin {
  return {
    name: 'fidicula-words',
    enforce: 'pre',
    transform(code, id) {
      const json = /\/words\/en\/[a-z_]+\.ts$/.test(id) ? /^export default (\{.*\}) as const\s*$/s.exec(code)?.[1] : undefined
      if (json === undefined) return null
      const words = Object.entries(JSON.parse(json) as Record<string, string>).map(([key, message]) => [key, simplest(compileMessage(message))])
      return { code: `export default ${JSON.stringify(Object.fromEntries(words))}`, map: null, moduleType: 'js' }
    },
  }
}

const simplest = (message: unknown): unknown => (Array.isArray(message) && message.length === 1 && typeof message[0] === 'string' ? message[0] : message)
