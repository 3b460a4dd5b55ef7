/** Where things stand in the enlarged plan of one end of the post: from millimetres to pixels, and room for numbers. */
import type { PlaceView, SoundView } from '@/api'

export interface Spot {
  place: PlaceView
  behind: number
  across: number
  known: string
  knownTo: number
}

export interface Frame {
  x: (behind: number) => number
  y: (across: number) => number
  /** Pixels for one mm. */
  scale: number
}

interface Stretch {
  behind: [number, number]
  across: [number, number]
}

export function spotsOf(view: SoundView, end: 'top' | 'bottom'): Spot[] {
  return view.places.flatMap((place) => {
    const at = place.ends.find((one) => one.end === end)
    if (!at || at.behind === null || at.across === null) return []
    return [{ place, behind: at.behind, across: at.across, known: at.known, knownTo: at.known_to }]
  })
}

/** True to scale. hand : −1 where the treble side lies above, 1 for a left-handed instrument. */
export function frameOf(stretch: Stretch, box: { left: number; top: number; width: number; height: number }, hand: number): Frame {
  const [low, high] = stretch.behind
  const [inner, outer] = stretch.across
  const scale = Math.min(box.width / (high - low), box.height / (outer - inner))
  return {
    scale,
    x: (behind) => box.left + box.width / 2 + (behind - (low + high) / 2) * scale,
    y: (across) => box.top + box.height / 2 + hand * (across - (inner + outer) / 2) * scale,
  }
}

/** The stretch that middles lie in, never less than so many mm, so that a tap does not fill the drawing. */
export function stretchOf(at: { behind: number; across: number }[], least: number): Stretch {
  const around = (values: number[]): [number, number] => {
    const [low, high] = [Math.min(...values), Math.max(...values)]
    const more = Math.max(0, least - (high - low)) / 2
    return [low - more, high + more]
  }
  return { behind: around(at.map((one) => one.behind)), across: around(at.map((one) => one.across)) }
}

export interface Label {
  spots: Spot[]
  /** Of the point that it names, and of its own upper left corner. */
  at: { x: number; y: number }
  left: number
  top: number
}

export const NUMBER = 22
const NEAR = 9
const AWAY = 15
const AROUND: [number, number][] = [[1, -1], [1, 1], [-1, -1], [-1, 1], [0, -1], [0, 1], [1, 0], [-1, 0]]

/** Numbers beside their points: places that lie on each other share a label, and no label covers a point or another. */
export function labelsOf(spots: Spot[], frame: Frame, size: { width: number; height: number }): Label[] {
  const labels: Label[] = []
  for (const spot of spots) {
    const at = { x: frame.x(spot.behind), y: frame.y(spot.across) }
    const near = labels.find((label) => Math.hypot(label.at.x - at.x, label.at.y - at.y) < NEAR)
    if (near) near.spots.push(spot)
    else labels.push({ spots: [spot], at, left: 0, top: 0 })
  }
  const placed: Label[] = []
  for (const label of labels) {
    const wide = NUMBER * label.spots.length
    const wishes = [1, 2, 3].flatMap((far) =>
      AROUND.map(([dx, dy]) => ({
        left: label.at.x + dx * AWAY * far + (dx > 0 ? 0 : dx < 0 ? -wide : -wide / 2),
        top: label.at.y + dy * AWAY * far + (dy > 0 ? 0 : dy < 0 ? -NUMBER : -NUMBER / 2),
      })),
    )
    const isFree = ({ left, top }: { left: number; top: number }) =>
      left > 2 && top > 24 && left + wide < size.width - 2 && top + NUMBER < size.height - 24 &&
      labels.every(({ at }) => at.x < left - 6 || at.x > left + wide + 6 || at.y < top - 6 || at.y > top + NUMBER + 6) &&
      placed.every((one) => one.left + NUMBER * one.spots.length < left || left + wide < one.left || one.top + NUMBER < top || top + NUMBER < one.top)
    const wish = wishes.find(isFree) ?? wishes[0]
    if (wish) Object.assign(label, wish)
    placed.push(label)
  }
  return placed
}
