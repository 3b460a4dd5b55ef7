/** Where a moment stands across a chart: in proportion, but never so close to the next visit that they cannot be told apart. */
import type { HistoryVisit } from '@/api'

const LEAST = 0.035

export interface TimeScale {
  /** From 0 to 1. */
  x: (visitId: string) => number
  /** Oldest first, with the day that it began. */
  visits: { id: string; at: number; x: number }[]
}

/** visits : newest first, as the history tells them. */
export function timeScale(visits: readonly HistoryVisit[]): TimeScale {
  const all = [...visits].reverse().map((visit) => ({ id: visit.id, at: Date.parse(visit.opened_at) }))
  const first = all[0]?.at ?? 0
  const span = Math.max((all.at(-1)?.at ?? 0) - first, 1)
  const least = Math.min(LEAST, 1 / Math.max(all.length, 1))
  const placed: { id: string; at: number; x: number }[] = []
  for (const one of all) {
    const before = placed.at(-1)
    placed.push({ ...one, x: Math.max((one.at - first) / span, before ? before.x + least : 0) })
  }
  const last = placed.at(-1)?.x ?? 1
  const scaled = placed.map((one) => ({ ...one, x: last > 0 ? one.x / last : 0.5 }))
  const of = new Map(scaled.map((one) => [one.id, one.x]))
  return { x: (id) => of.get(id) ?? 0, visits: scaled }
}

export interface ValueScale {
  low: number
  high: number
}

/** Room for every value and every band, with a little air. */
export function valueScale(values: readonly number[]): ValueScale {
  const low = Math.min(...values)
  const high = Math.max(...values)
  const air = Math.max((high - low) * 0.12, 1e-3)
  return { low: low - air, high: high + air }
}
