/** The three views of an instrument. */
export const VIEWS = { end: 'End', side: 'Side', plan: 'Plan' } as const
export type ViewName = keyof typeof VIEWS
