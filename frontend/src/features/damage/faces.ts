/** Where the faces of an instrument stand on the damage map, and how a place on one is drawn and clicked. */
import type { Family } from '@/api'
import { bodyOutline, BUILDS, fHoles, type FHole } from '@/shared/build'

export type FaceName = 'back' | 'front' | 'bass_side' | 'treble_side' | 'neck' | 'scroll'

/** A face: its box on the map, which way its `across` runs, and its lines, all in mm of the map. */
export interface Face {
  name: FaceName
  left: number
  top: number
  wide: number
  tall: number
  /** 1 where `across` grows to the right. */
  hand: 1 | -1
  /** Its own length, from where `along` counts. */
  outline: string
  holes: FHole[]
}
export interface Faces {
  wide: number
  tall: number
  /** Of a violin's line, in mm of this map. */
  unit: number
  all: Face[]
}

/** length : of the body. [mm] */
export function facesOf(options: { family: string; length: number; leftHanded: boolean }): Faces {
  const whole = BUILDS[options.family as Family] ?? BUILDS.violin
  const k = options.length / whole.body
  const build = { ...whole, body: options.length, upper: whole.upper * k, waist: whole.waist * k, lower: whole.lower * k, ribs: whole.ribs * k, neck: whole.neck * k, head: whole.head * k }
  const unit = build.body / 356
  const gap = 22 * unit
  const title = 20 * unit
  const right: 1 | -1 = options.leftHanded ? -1 : 1
  const left: 1 | -1 = options.leftHanded ? 1 : -1
  const neckWide = 34 * unit
  const headWide = build.head * 0.5
  const rows = [
    { name: 'bass_side', wide: build.ribs, tall: build.body, hand: right },
    { name: 'front', wide: build.lower, tall: build.body, hand: right },
    { name: 'back', wide: build.lower, tall: build.body, hand: left },
    { name: 'treble_side', wide: build.ribs, tall: build.body, hand: left },
  ] as const
  const all: Face[] = []
  let x = gap / 2
  for (const row of rows) {
    const face: Face = { ...row, left: x, top: title, outline: '', holes: [] }
    all.push(row.name === 'front' || row.name === 'back' ? plate(face, build, row.name === 'front') : strip(face))
    x += row.wide + gap
  }
  const side = Math.max(headWide, neckWide)
  all.push(scroll({ name: 'scroll', left: x + (side - headWide) / 2, top: title, wide: headWide, tall: build.head, hand: right, outline: '', holes: [] }))
  all.push(strip({ name: 'neck', left: x + (side - neckWide) / 2, top: title + build.head + 2 * gap, wide: neckWide, tall: build.neck, hand: left, outline: '', holes: [] }))
  return { wide: x + side + gap / 2, tall: build.body + title + gap / 2, unit, all }
}

const middle = (face: Face) => face.left + face.wide / 2
export const placed = (face: Face, across: number, along: number): [number, number] => [middle(face) + face.hand * across, face.top + along]
/** Where a click is, in whole mm; null beside the face. */
export function clicked(face: Face, x: number, y: number): { across: number; along: number } | null {
  const [across, along] = [Math.round(face.hand * (x - middle(face))), Math.round(y - face.top)]
  return Math.abs(across) > face.wide / 2 + 1 || along < -1 || along > face.tall + 1 ? null : { across, along: Math.min(Math.max(0, along), Math.floor(face.tall)) }
}

function plate(face: Face, build: (typeof BUILDS)[Family], isFront: boolean): Face {
  const at = (across: number, along: number) => placed(face, across, along).map((one) => one.toFixed(1)).join(' ')
  const holes = isFront ? fHoles(build, at).map(({ path, eyes }) => ({ path, eyes: eyes.map(([across, along]) => placed(face, across, along)) })) : []
  return { ...face, outline: bodyOutline(build, at), holes }
}
function strip(face: Face): Face {
  const { left: x, top: y, wide, tall } = face
  return { ...face, outline: `M${x} ${y} h${wide} v${tall} h${-wide} Z` }
}
/** Seen from the bass side: the volute, the pegbox under it. */
function scroll(face: Face): Face {
  const r = face.wide * 0.42
  const [cx, cy] = [middle(face), face.top + r]
  const turn = face.hand
  const spiral = Array.from({ length: 41 }, (_, i) => {
    const angle = (i / 40) * 4.4 * Math.PI
    const radius = r * (1 - (0.82 * i) / 40)
    return `${(cx + turn * radius * Math.cos(angle)).toFixed(1)} ${(cy + radius * Math.sin(angle)).toFixed(1)}`
  })
  const [front, back] = [cx + turn * r, cx - turn * r * 0.9]
  const foot = face.top + face.tall
  const box = `M${front.toFixed(1)} ${cy.toFixed(1)} L${(cx + turn * face.wide * 0.3).toFixed(1)} ${foot.toFixed(1)} H${(cx - turn * face.wide * 0.18).toFixed(1)} L${back.toFixed(1)} ${cy.toFixed(1)}`
  return { ...face, outline: `M${spiral.join(' L')} ${box}` }
}
