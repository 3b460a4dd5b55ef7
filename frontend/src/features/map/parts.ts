/** Where each part of the instrument leads, and which pages stand beside each other at it. */
import type { RouteLocationRaw } from 'vue-router'
import type { PartView } from '@/api'
import { PAGES, pagesOf, routeOf, type PageName } from '@/shared/pages'
import { t } from '@/words/map'

export type PartName = PartView['part']

/** The pages of a part in their order; the sheet is the bridge's own. */
const PAGES_AT: Record<PartName, PageName[]> = {
  pegs: [],
  nut: ['nut'],
  board: ['board', 'playing'],
  neck: ['neck'],
  strings: ['strings', 'load'],
  bridge: ['bridge', 'place', 'wheels'],
  post: ['post', 'sound'],
  bar: ['bar'],
  tailpiece: ['tail'],
  body: [],
}

/** Short enough to stand in the lower bout. */
export const SHORT: Partial<Record<PartName, string>> = { bar: t('bar'), tailpiece: t('tail') }

export function routeOfPart(ticket: string, part: PartName, family: string): RouteLocationRaw {
  if (part === 'bridge') return { name: 'bench', params: { ticket } }
  if (part === 'pegs' || part === 'body') return { name: 'look', params: { ticket }, query: { item: part === 'body' ? 'seams' : family === 'bass' ? 'machines' : 'pegs' } }
  return routeOf(ticket, PAGES_AT[part][0] ?? 'strings')
}

/** The part that a page is about. */
export function partOf(page: PageName | ''): PartName | '' {
  if (page === '') return ''
  return (Object.keys(PAGES_AT) as PartName[]).find((part) => PAGES_AT[part].includes(page)) ?? ''
}

/** The pages beside each other at a part, where there is more than one. */
export function besideAt(ticket: string, part: PartName | '', family: string): { key: string; words: string; to: RouteLocationRaw }[] {
  if (part === '') return []
  const there = PAGES_AT[part].filter((name) => pagesOf(family).includes(name))
  const pages: { key: string; words: string; to: RouteLocationRaw }[] = there.map((name) => ({
    key: name,
    words: name === 'bridge' ? t('try_other_values') : PAGES[name],
    to: routeOf(ticket, name),
  }))
  if (part === 'bridge') pages.unshift({ key: 'sheet', words: t('sheet'), to: { name: 'bench', params: { ticket } } })
  return pages.length > 1 ? pages : []
}
