/** From millimetres to the screen, the same for the drawing and for the card's columns under it. */
import type { Drawing } from '@/api'

export interface SheetGeometry {
  /** Pixels from the left of the panel for an offset in mm; a left-handed instrument is mirrored here alone. */
  x: (offset: number) => number
  /** Pixels for one mm. */
  scale: number
  centre: number
  /** Where each string's column of the card stands, by position from the lowest string. */
  columns: { left: number; width: number }[]
}

export interface SheetGeometryOptions {
  width: number
  /** Kept free at the left for the rows' names, and at the right for the single readings. */
  left: number
  right: number
  strings: number
  leftHanded: boolean
  drawing: Drawing | null
}

/** So far apart stand the strings' columns where there is room; a piece of the legs is left out where they are not. */
const WIDEST_COLUMN = 112

const HEADROOM = 1.06

/** Kept free over the strings, and for the belly, bar and post under the feet. */
export const TOP = 10
export const FOOT = 36

/** The highest thing drawn over the belly. [mm] */
export function highestDrawn(drawing: Drawing): number {
  const [, z = 0] = drawing.crown_centre
  // A little headroom keeps the scale, and with it the card's columns, still while a cut closes.
  return Math.max(
    (z + drawing.crown_radius) * HEADROOM,
    ...drawing.strings.map((s) => Math.max(s.crown_now ?? 0, (s.underside_now ?? s.underside_wanted) + s.diameter)),
  )
}

export function sheetGeometry(options: SheetGeometryOptions): SheetGeometry {
  const { width, left, right, strings, leftHanded, drawing } = options
  const room = Math.max(width - left - right, 120)
  const offsets = drawing?.strings.map((string) => string.offset) ?? []
  const first = offsets[0] ?? -1
  const last = offsets[offsets.length - 1] ?? 1
  const gap = drawing ? (last - first) / (strings - 1) : 1
  const widest = Math.min(WIDEST_COLUMN, room / (strings + (drawing ? 0.35 : 0)))
  const feet = drawing ? (room * 0.98) / drawing.foot_width : Infinity
  const scale = Math.min(widest / gap, feet)
  const centre = left + room / 2
  const hand = leftHanded ? -1 : 1
  const middle = drawing ? 0 : (strings - 1) / 2
  const x = (offset: number) => centre + hand * offset * scale
  const columnWidth = gap * scale
  return {
    x,
    scale,
    centre,
    columns: Array.from({ length: strings }, (_, i) => {
      const offset = offsets[i] ?? (i - middle) * gap
      return { left: x(offset) - columnWidth / 2, width: columnWidth }
    }),
  }
}
