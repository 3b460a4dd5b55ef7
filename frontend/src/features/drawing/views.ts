import { t } from '@/words/drawing'

/** The three views of an instrument. */
export const VIEWS = { end: t('end'), side: t('side'), plan: t('plan') } as const
export type ViewName = keyof typeof VIEWS
