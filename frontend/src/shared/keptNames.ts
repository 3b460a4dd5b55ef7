/** Names that page and service worker share. */
export const KEPT = 'fidicula-kept'
export const KEPT_HEADER = 'x-fidicula-kept'
