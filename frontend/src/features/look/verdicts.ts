/** What can be said of an item that is looked over, in the order of its digits. */
export const VERDICTS = [
  { value: 'fine', label: 'fine', short: 'fine' },
  { value: 'watch', label: 'watch', short: 'watch' },
  { value: 'work', label: 'work needed', short: 'work' },
  { value: 'not_looked_at', label: 'not inspected', short: 'not yet' },
] as const

export const VERDICT_WORDS: Record<string, string> = Object.fromEntries(VERDICTS.map((row) => [row.value, row.label]))
