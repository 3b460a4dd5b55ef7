/** An instrument's pages: their names, which digit leads there from the strip, and which question each decides. */
import { useRouter } from 'vue-router'
import { useCommands } from './commands'

export const PAGES = {
  board: 'board',
  neck: 'neck',
  nut: 'nut',
  bridge: 'bridge',
  bar: 'bar and post',
  tail: 'afterlength',
  load: 'load',
  playing: 'rattle and press',
  wheels: 'height wheels',
} as const
export type PageName = keyof typeof PAGES

const OF_FAMILY: Partial<Record<PageName, string>> = { wheels: 'bass' }

export function pagesOf(family: string): PageName[] {
  return (Object.keys(PAGES) as PageName[]).filter((name) => (OF_FAMILY[name] ?? family) === family)
}

const DECIDED_ON: Record<string, PageName> = {
  board: 'board',
  projection: 'neck',
  bar: 'bar',
  afterlength: 'tail',
  nut_low: 'nut',
  glued_nut: 'nut',
  bridge_low: 'bridge',
}

/** The page that shows what a question's ways would do, if there is one. */
export function pageOfQuestion(question: string): PageName | undefined {
  return DECIDED_ON[question]
}

/** Digits in the strip lead to the pages, from every page of an instrument. */
export function usePageCommands(ticket: () => string, family: () => string): void {
  const router = useRouter()
  useCommands(
    (Object.keys(PAGES) as PageName[]).map((name, i) => ({
      letter: String(i + 1),
      words: PAGES[name],
      run: () => void router.push({ name: 'page', params: { ticket: ticket(), page: name } }),
      possible: () => pagesOf(family()).includes(name),
    })),
  )
}
