/** Where on the instrument a figure holds: as the measure that is read there, and its place among that measure's places. */

const PLACES: Record<string, number> = { bass: 0, nut: 0, treble: 3, end: 1, heel: 1 }
const ELSEWHERE: Record<string, { measure: string; position: number | null }> = {
  relief_bass: { measure: 'relief', position: 1 },
  relief_treble: { measure: 'relief', position: 4 },
  margin_treble_at_nut: { measure: 'nut_margin', position: 1 },
  overstand: { measure: 'board_at_edge', position: null },
  crown_radius: { measure: 'string_centres_bridge', position: 1 },
  post_bottom_aside: { measure: 'post_inset', position: 1 },
  post_far_side: { measure: 'post_setback', position: 0 },
  slot_depth_ratio: { measure: 'slot_depth', position: null },
}

export function sketchedAs(figure: string): { measure: string; position: number | null } {
  const plain = figure.replace(/_(added|accepted|in)(?=_|$).*?(_bass|_treble)?$/, '$2').replace(/_(min|floor|ratio|factor)$/, '')
  const found = ELSEWHERE[plain] ?? ELSEWHERE[figure]
  if (found) return found
  const [, measure, place] = /^(.*?)(?:_(bass|treble|nut|end|heel))?$/.exec(plain.replace('mark_height', 'end_height')) ?? []
  return { measure: measure ?? plain, position: place === undefined ? null : (PLACES[place] ?? null) }
}
