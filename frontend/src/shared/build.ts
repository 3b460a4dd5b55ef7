/** How the families are built, and the outline of their bodies: for drawings, not for any amount. */
import type { Family } from '@/api'

/** What tells one family's shape from another's. [mm] Widths are whole; the rest is measured along the middle. */
export interface Build {
  head: number
  neck: number
  body: number
  stop: number
  board: number
  upper: number
  waist: number
  lower: number
  afterlength: number
  /** Of the shoulders: how far down the widest place of the upper bout lies, as a share of the body. */
  shoulders: number
  endpin: number
  /** Height of the ribs. */
  ribs: number
}

export const BUILDS: Record<Family, Build> = {
  violin: { head: 106, neck: 130, body: 356, stop: 195, board: 270, upper: 168, waist: 112, lower: 208, afterlength: 55, shoulders: 0.185, endpin: 0, ribs: 31 },
  viola: { head: 116, neck: 145, body: 406, stop: 220, board: 303, upper: 190, waist: 132, lower: 242, afterlength: 62, shoulders: 0.185, endpin: 0, ribs: 38 },
  cello: { head: 196, neck: 280, body: 755, stop: 400, board: 580, upper: 340, waist: 232, lower: 438, afterlength: 115, shoulders: 0.185, endpin: 40, ribs: 118 },
  bass: { head: 300, neck: 450, body: 1110, stop: 600, board: 880, upper: 505, waist: 372, lower: 665, afterlength: 190, shoulders: 0.24, endpin: 60, ribs: 205 },
}

/** Places of an outline as an SVG path has them: across from the middle and along from the top edge. [mm] */
export type At = (across: number, along: number) => string

/** A body's outline from the top edge down one side to the bottom. side : −1 or 1, where `across` is taken. */
function half(build: Build, side: 1 | -1, at: At): string {
  const [u, w, l] = [build.upper / 2, build.waist / 2, build.lower / 2]
  const p = (across: number, down: number) => at(side * across, down * build.body)
  const d = build.shoulders
  return [
    `M${p(0.1 * u, 0)}`,
    `C${p(0.72 * u, d > 0.2 ? 0.05 : -0.01)} ${p(u, d * 0.36)} ${p(u, d)}`,
    `C${p(u, d + 0.085)} ${p(0.84 * u, 0.29)} ${p(0.92 * u, 0.365)}`,
    `C${p(0.74 * u, 0.37)} ${p(w, 0.4)} ${p(w, 0.475)}`,
    `C${p(w, 0.55)} ${p(0.72 * l, 0.595)} ${p(0.905 * l, 0.605)}`,
    `C${p(0.86 * l, 0.665)} ${p(l, 0.69)} ${p(l, 0.795)}`,
    `C${p(l, 0.94)} ${p(0.62 * l, 1)} ${p(0, 1)}`,
  ].join(' ')
}
export function bodyOutline(build: Build, at: At): string {
  const neck = build.upper * 0.05
  return `${half(build, -1, at)} ${half(build, 1, at)} M${at(-neck, 0)} L${at(neck, 0)}`
}

/** An f-hole: its line, and the middles of its eyes. */
export interface FHole {
  path: string
  eyes: (readonly [number, number])[]
}
export function fHoles(build: Build, at: At): FHole[] {
  const k = build.lower / 208
  return ([-1, 1] as const).map((s) => {
    const p = (across: number, down: number) => at(s * across * k, down * build.body)
    return {
      path: `M${p(24, 0.475)} C${p(44, 0.44)} ${p(28, 0.56)} ${p(34, 0.575)} S${p(30, 0.69)} ${p(49, 0.665)}`,
      eyes: [[s * 22 * k, 0.478 * build.body] as const, [s * 51 * k, 0.662 * build.body] as const],
    }
  })
}
