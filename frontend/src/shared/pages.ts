/** An instrument's pages: their names, which digit leads there from the strip, and which question each decides. */
import { onBeforeUnmount, onMounted } from 'vue'
import { useRouter } from 'vue-router'
import { useCommands } from './commands'
import { t } from '@/words/shared'

export const PAGES = {
  board: t('board'),
  neck: t('neck'),
  nut: t('nut'),
  bridge: t('bridge'),
  bar: t('bass_bar'),
  tail: t('afterlength'),
  load: t('load'),
  playing: t('buzz_clearance'),
  post: t('post'),
  sound: t('sound'),
  strings: t('strings'),
  wheels: t('height_wheels'),
  place: t('where_the_bridge_goes'),
} as const
export type PageName = keyof typeof PAGES

/** The part of the instrument that each page is about; none for what is about the whole. */
export const PART_OF: Partial<Record<PageName, string>> = {
  board: 'board',
  neck: 'neck',
  nut: 'nut',
  bridge: 'bridge',
  bar: 'bar',
  place: 'bridge',
  tail: 'tailpiece',
  post: 'post',
  strings: 'strings',
}

const OF_FAMILIES: Partial<Record<PageName, readonly string[]>> = { wheels: ['cello', 'bass'] }

export function pagesOf(family: string): PageName[] {
  return (Object.keys(PAGES) as PageName[]).filter((name) => OF_FAMILIES[name]?.includes(family) ?? true)
}

const DECIDED_ON: Record<string, PageName> = {
  board: 'board',
  projection: 'neck',
  bar: 'bar',
  bridge_place: 'place',
  bridge_walked: 'place',
  bridge_leans: 'place',
  afterlength: 'tail',
  nut_low: 'nut',
  glued_nut: 'nut',
  bridge_low: 'bridge',
  sound: 'sound',
  post_fallen: 'post',
}

/** The page that shows what a question's ways would do, if there is one. */
export function pageOfQuestion(question: string): PageName | undefined {
  return DECIDED_ON[question]
}

/** Where a page stands: most are worked out by one component, the session with a player has its own. */
export function routeOf(ticket: string, page: PageName): { name: string; params: Record<string, string> } {
  return page === 'sound' ? { name: 'sound', params: { ticket } } : { name: 'page', params: { ticket, page } }
}

/** What leads to each page from the strip, in their order. */
const KEYS = '1234567890-+*'

/** Digits in the strip lead to the pages, from every page of an instrument. */
export function usePageCommands(ticket: () => string, family: () => string): void {
  const router = useRouter()
  useCommands(
    (Object.keys(PAGES) as PageName[]).map((name, i) => ({
      letter: KEYS.charAt(i),
      words: PAGES[name],
      run: () => void router.push(routeOf(ticket(), name)),
      possible: () => pagesOf(family()).includes(name),
    })),
  )
}

/** PageUp and PageDown: the page before, the page after. */
export function usePageTurning(ticket: () => string, family: () => string, here: () => PageName): void {
  const router = useRouter()
  /** Where the last turn leads, which may not stand there yet: turns in a row add up. */
  let turningTo: PageName | null = null
  function turn(by: number): void {
    const names = pagesOf(family())
    const at = names.indexOf(turningTo ?? here())
    const next = names[(at + by + names.length) % names.length]
    if (!next) return
    turningTo = next
    void router.push(routeOf(ticket(), next)).then(() => {
      if (turningTo === next) turningTo = null
    })
  }
  function onKey(event: KeyboardEvent): void {
    if (event.key !== 'PageDown' && event.key !== 'PageUp') return
    event.preventDefault()
    turn(event.key === 'PageDown' ? 1 : -1)
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
}
