import { t } from '@/words/look'

/** What can be said of an item that is looked over, in the order of its digits. */
export const VERDICTS = [
  { value: 'fine', label: t('fine'), short: t('fine') },
  { value: 'watch', label: t('watch'), short: t('watch') },
  { value: 'work', label: t('work_needed'), short: t('work') },
  { value: 'not_looked_at', label: t('not_inspected'), short: t('not_yet') },
] as const

export const VERDICT_WORDS: Record<string, string> = Object.fromEntries(VERDICTS.map((row) => [row.value, row.label]))
