/** Millimetres on the screen: columns under strings, the treble on its own side. */
import { describe, expect, it } from 'vitest'
import type { Drawing } from '@/api'
import { sheetGeometry } from '@/features/drawing/geometry'
import { between, bridgeOutline } from '@/features/drawing/outline'

function drawing(footWidth: number, offsets: number[], height: number): Drawing {
  return {
    strings: offsets.map((offset, i) => ({
      name: String(i),
      offset,
      diameter: 0.8,
      board_line: height - 8,
      underside_wanted: height - 1,
      crown_wanted: height - 0.8,
      underside_now: null,
      crown_now: null,
      assumed: false,
      bow_separation: null,
    })),
    crown_centre: [0, height - 43],
    crown_radius: 43,
    projection: 27,
    projection_assumed: false,
    foot_width: footWidth,
    waist_width: footWidth * 0.36,
    bar_inset: 1,
    post_diameter: 6,
  opposite_build: false,
  }
}

const violin = drawing(41.5, [-16.7, -5.5, 5.7, 16.7], 34)
const options = { width: 860, left: 136, right: 176, strings: 4, leftHanded: false }

describe('columns', () => {
  it('stand under their strings', () => {
    const geometry = sheetGeometry({ ...options, drawing: violin })
    violin.strings.forEach((string, i) => {
      const column = geometry.columns[i]
      expect((column?.left ?? 0) + (column?.width ?? 0) / 2).toBeCloseTo(geometry.x(string.offset), 6)
    })
  })

  it('are mirrored for a left-handed instrument, and nothing else is', () => {
    const right = sheetGeometry({ ...options, drawing: violin })
    const left = sheetGeometry({ ...options, drawing: violin, leftHanded: true })
    expect(left.scale).toBe(right.scale)
    expect(left.x(5) - left.centre).toBeCloseTo(right.centre - right.x(5), 9)
    expect(left.columns[0]?.left).toBeGreaterThan(left.columns[3]?.left ?? 0)
  })

  it('stay between the margins, also for a wide bass on a phone', () => {
    const bass = drawing(153, [-41.5, -13.8, 13.8, 41.5], 160)
    const geometry = sheetGeometry({ ...options, drawing: bass, width: 390, left: 8, right: 8 })
    expect(geometry.x(-76.5)).toBeGreaterThanOrEqual(8)
    expect(geometry.x(76.5)).toBeLessThanOrEqual(382)
  })

  it('are even where no strings are named yet', () => {
    const geometry = sheetGeometry({ ...options, drawing: null })
    const widths = new Set(geometry.columns.map((column) => column.width))
    expect(widths.size).toBe(1)
    expect(geometry.columns[0]?.left).toBeLessThan(geometry.columns[3]?.left ?? 0)
  })

  it('stand 112 apart where there is room, and closer where there are five', () => {
    const apart = (strings: number, offsets: number[]) => sheetGeometry({ ...options, width: 680, right: 16, strings, drawing: drawing(41.5, offsets, 34) }).columns[0]?.width
    expect(apart(4, [-16.7, -5.5, 5.7, 16.7])).toBeCloseTo(112)
    expect(apart(5, [-20, -10, 0, 10, 20])).toBeCloseTo(528 / 5.35)
  })
})

describe('the outline', () => {
  it.each(['violin', 'viola', 'cello', 'bass'])('of a %s is symmetric about the middle for a symmetric crown', (family) => {
    const path = bridgeOutline({
      family,
      footWidth: 40,
      waist: 14,
      crownHalf: 20,
      crownAt: (offset) => 33 - offset ** 2 / 86,
      bellyAt: () => 0,
      x: (offset) => offset,
      y: (height) => height,
    })
    const numbers = [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, a, b]) => [Number(a), Number(b)] as const)
    const seen = new Set(numbers.map(([a, b]) => `${a} ${b}`))
    for (const [a, b] of numbers) expect(seen.has(`${a === 0 ? a : -a} ${b}`)).toBe(true)
    expect(path).not.toContain('NaN')
  })

  it('goes straight between known places and flat beyond them', () => {
    const points: [number, number][] = [[-10, 1], [0, 2], [10, 4]]
    expect([-20, -5, 5, 20].map((at) => between(points, at))).toEqual([1, 1.5, 3, 4])
    expect(between([], 5)).toBe(0)
  })
})
