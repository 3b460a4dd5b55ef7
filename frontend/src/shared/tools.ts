/** Post and bar are reached through the f-hole: a caliper in the hand is taken for them only where somebody says so. */
const REACHES_INSIDE = 'card_gauge'

/** What reads a measure: what was chosen for it, the tool in the hand where it suits and reaches, else the usual one. */
export function toolAmong(tools: readonly string[], inHand: string, chosen?: string): string {
  if (chosen !== undefined && tools.includes(chosen)) return chosen
  const usual = tools[0] ?? inHand
  return tools.includes(inHand) && usual !== REACHES_INSIDE ? inHand : usual
}
