/** From here on work and what to do stand beside each other and scroll by themselves. */
export const COLUMNS = '(min-width: 900px) and (min-height: 620px)'
