import { describe, expect, it } from 'vitest'
import type { PlaceView } from '@/api'
import { frameOf, labelsOf, NUMBER, stretchOf, type Spot } from '@/features/sound/endPlan'

function spot(number: number, behind: number, across: number): Spot {
  const place: PlaceView = {
    number, says: '', at: '2026-11-26T09:00:00Z', ends: [], is_now: false, is_best: false, incomparable: [],
    from_other_foot: false, way_back: '', way_is_estimate: false, vectors: {}, mean: null,
  }
  return { place, behind, across, known: 'gauged', knownTo: 0.2 }
}
const BOX = { left: 40, top: 40, width: 300, height: 200 }
const TRAIL = [spot(1, 4.8, 16.4), spot(2, 5.9, 15.2), spot(3, 5.8, 15.6), spot(4, 5.3, 15.6), spot(5, 5.3, 15.6)]

describe('the plan of one end', () => {
  it('is true to scale, the tailpiece to the right, the treble side by the hand', () => {
    const stretch = stretchOf(TRAIL, 1.6)
    const right = frameOf(stretch, BOX, -1)
    const left = frameOf(stretch, BOX, 1)
    expect(right.x(5.9) - right.x(5.3)).toBeCloseTo(0.6 * right.scale)
    expect(right.y(15.2) - right.y(15.6)).toBeCloseTo(0.4 * right.scale)
    expect(left.y(15.6) - left.y(15.2)).toBeCloseTo(0.4 * left.scale)
  })

  it('never fills the drawing with a single tap', () => {
    const { behind, across } = stretchOf([spot(1, 5, 15), spot(2, 5.1, 15)], 1.6)
    expect(behind[1] - behind[0]).toBeCloseTo(1.6)
    expect(across[1] - across[0]).toBeCloseTo(1.6)
    expect((behind[0] + behind[1]) / 2).toBeCloseTo(5.05)
  })

  it('sets numbers beside their points: none covers a point or another number', () => {
    const frame = frameOf(stretchOf(TRAIL, 1.6), BOX, -1)
    const labels = labelsOf(TRAIL, frame, { width: 380, height: 280 })
    expect(labels.map((label) => label.spots.map((one) => one.place.number))).toEqual([[1], [2], [3], [4, 5]])
    const boxes = labels.map((label) => ({ ...label, right: label.left + NUMBER * label.spots.length, bottom: label.top + NUMBER }))
    for (const box of boxes) {
      for (const { at } of labels) expect(at.x < box.left || at.x > box.right || at.y < box.top || at.y > box.bottom).toBe(true)
      for (const other of boxes) {
        if (other !== box) expect(other.right < box.left || box.right < other.left || other.bottom < box.top || box.bottom < other.top).toBe(true)
      }
    }
  })
})
