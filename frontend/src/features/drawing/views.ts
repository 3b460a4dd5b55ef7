/** The three views of an instrument. */
export const VIEWS = { end: 'End, from the tailpiece', side: 'Side', plan: 'Plan' } as const
export type ViewName = keyof typeof VIEWS
