/** What the catalogue has is said somewhere; that a key exists and gets what its placeholders want is held by its type. */
import { globSync, readFileSync } from 'node:fs'
import { basename } from 'node:path'
import { expect, it } from 'vitest'

const sources = globSync('src/**/*.{vue,ts}', { exclude: ['src/api/**', 'src/words/**'] }).map((path: string) => readFileSync(path, 'utf8'))

const parts: string[] = globSync('src/words/en/*.ts').map((path: string) => basename(path, '.ts'))

it.each(parts)('the words of %s are all said', (part: string) => {
  const users = sources.filter((source: string) => source.includes(`'@/words/${part}'`))
  const keys = [...readFileSync(`src/words/en/${part}.ts`, 'utf8').matchAll(/^ {2}"(\w+)":/gm)].map((found) => found[1] ?? '')
  expect(keys.length).toBeGreaterThan(0)
  expect(keys.filter((key) => !users.some((source: string) => source.includes(`'${key}'`)))).toEqual([])
})

/** The compiler takes away a space at the beginning or the end of an element: what it was to part would be glued together. */
it('no space stands where the compiler drops it', () => {
  const inline = '(?:tspan|span|b|em|small|template|a|router-link|kbd)'
  const glued = new RegExp(`<${inline}\\b[^<\\n]*?> \\{\\{|\\}\\} </${inline}>`)
  expect(sources.flatMap((source: string) => source.match(glued)?.[0] ?? [])).toEqual([])
})
