<script setup lang="ts">
/** The End view: the bridge seen from the tailpiece, crown now and crown wanted, the wood between hatched. */
import { computed } from 'vue'
import type { Drawing } from '@/api'
import { FOOT, highestDrawn, TOP, type SheetGeometry } from './geometry'
import { between, bridgeOutline, heartOf, heartPath } from './outline'
import { t } from '@/words/drawing'

const props = withDefaults(defineProps<{
  drawing: Drawing
  geometry: SheetGeometry
  width: number
  height: number
  /** Pixels of the width that the bridge may take. */
  room: number
  leftHanded: boolean
  family: string
  /** Whether what stands over the strings is told of the crown. */
  isOfCrown?: boolean
}>(), { isOfCrown: true })

const strings = computed(() => props.drawing.strings)
const outer = computed(() => Math.max(...strings.value.map((s) => Math.abs(s.offset))))
const crownHalf = computed(() => outer.value * 1.22)

function wantedAt(offset: number): number {
  const [y = 0, z = 0] = props.drawing.crown_centre
  return z + Math.sqrt(Math.max(0, props.drawing.crown_radius ** 2 - (offset - y) ** 2))
}

interface Stretch {
  /** How far the crown as it is stands over the crown wanted, at each measured string. */
  known: [number, number][]
  from: number
  to: number
}

/** The crown as it is, drawn only around strings that are measured: neighbours join into one stretch. */
const stretches = computed((): Stretch[] => {
  const found: Stretch[] = []
  const reach = crownHalf.value - outer.value
  let joins = false
  strings.value.forEach((s, i) => {
    if (s.crown_now === null) {
      joins = false
      return
    }
    const place: [number, number] = [s.offset, s.crown_now - s.crown_wanted]
    const to = i === strings.value.length - 1 ? crownHalf.value : s.offset + reach
    const open = joins ? found[found.length - 1] : undefined
    if (open) {
      open.known.push(place)
      open.to = to
    } else {
      found.push({ known: [place], from: i === 0 ? -crownHalf.value : s.offset - reach, to })
    }
    joins = true
  })
  return found
})
function nowAt(stretch: Stretch, offset: number): number {
  return wantedAt(offset) + between(stretch.known, offset)
}
function outlineAt(offset: number): number {
  const stretch = stretches.value.find(({ from, to }) => offset >= from && offset <= to)
  return stretch ? Math.min(wantedAt(offset), nowAt(stretch, offset)) : wantedAt(offset)
}

function bellyAt(offset: number): number {
  const half = props.drawing.foot_width / 2
  return -props.drawing.foot_width * 0.045 * (offset / half) ** 2
}

/* A bridge taller than the panel is drawn with a piece of its legs left out, between two break lines. */
const highest = computed(() => highestDrawn(props.drawing))
const tallest = computed(() => (props.height - TOP - FOOT) / props.geometry.scale)
const leftOut = computed(() => {
  const over = highest.value - tallest.value
  return over > highest.value * 0.02 ? over : 0
})
const breakLow = computed(() => tallest.value * 0.26)
const base = computed(() => props.height - FOOT)

function yUpper(height: number): number {
  return base.value - (height - leftOut.value) * props.geometry.scale
}
function yLower(height: number): number {
  return base.value - height * props.geometry.scale
}
const breakY = computed(() => yLower(breakLow.value))

const x = (offset: number): number => props.geometry.x(offset)

function outline(y: (height: number) => number): string {
  return bridgeOutline({
    family: props.family,
    footWidth: props.drawing.foot_width,
    waist: props.drawing.waist_width,
    crownHalf: crownHalf.value,
    crownAt: outlineAt,
    bellyAt,
    x,
    y,
  })
}

function path(at: (offset: number) => number, from: number, to: number, y = yUpper): string {
  const steps = 40
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const offset = from + ((to - from) * i) / steps
    return `${x(offset).toFixed(2)} ${y(at(offset)).toFixed(2)}`
  })
  return `M${points.join(' L')}`
}

const wantedPath = computed(() => path(wantedAt, -crownHalf.value, crownHalf.value))
const nowPath = computed(() =>
  stretches.value.map((stretch) => path((offset) => nowAt(stretch, offset), stretch.from, stretch.to)).join(' '),
)
const woodPath = computed(() =>
  stretches.value
    .map((stretch) => {
      const over = (offset: number) => Math.max(nowAt(stretch, offset), wantedAt(offset))
      const back = path(wantedAt, stretch.to, stretch.from).replace('M', 'L')
      return `${path(over, stretch.from, stretch.to)} ${back} Z`
    })
    .join(' '),
)
const boardPath = computed(() => {
  const points: [number, number][] = strings.value.map((s) => [s.offset, s.board_line])
  const smooth = (offset: number) => smoothThrough(points, offset)
  return path(smooth, points[0]?.[0] ?? 0, points[points.length - 1]?.[0] ?? 0)
})
/** Half of what there is room for beside the middle. [mm] */
const reach = computed(() => Math.min(props.drawing.foot_width * 0.68, props.room / 2 / props.geometry.scale))
const bellyPath = computed(() => path(bellyAt, -reach.value, reach.value, yLower))
const belly2 = computed(() => {
  const inner = reach.value * 0.92
  return path((offset) => bellyAt(offset) - thickness.value, -inner, inner, yLower)
})
const heart = computed(() => {
  const lowest = leftOut.value > 0 ? breakLow.value + leftOut.value : 0
  const tall = wantedAt(0) - lowest
  const at = leftOut.value > 0 ? lowest + tall * 0.36 : wantedAt(0) * heartOf(props.family).height
  return heartPath(x, yUpper, at, Math.min(props.drawing.waist_width * heartOf(props.family).across, tall * 0.13))
})
const thickness = computed(() => 8 / props.geometry.scale)

/** The polynomial through all points: they are few and lie on a smooth curve. */
function smoothThrough(points: [number, number][], at: number): number {
  return points.reduce(
    (sum, [xi, yi], i) =>
      sum + points.reduce((term, [xj], j) => (i === j ? term : (term * (at - xj)) / (xi - xj)), yi),
    0,
  )
}

const sideAt = computed(() => Math.min(props.drawing.foot_width * 0.5 * props.geometry.scale + 60, props.room / 2))

/** Over the crown's ends, where no string stands and no wood, however wide the bridge. */
const sideY = computed(() => {
  const tops = [-crownHalf.value, crownHalf.value].map((end) =>
    Math.max(wantedAt(end), ...stretches.value.filter(({ from, to }) => end >= from && end <= to).map((one) => nowAt(one, end))),
  )
  return Math.max(18, yUpper(Math.max(...tops)) - 14)
})

/** Which way the post lies from the middle: with the high strings, but where the build is for the other hand. */
const postSide = computed(() => (props.drawing.opposite_build ? -1 : 1))
const bar = computed(() => {
  const width = props.drawing.post_diameter * 0.9
  return stub(-postSide.value * (props.drawing.foot_width / 2 - props.drawing.bar_inset - width / 2), width)
})
const post = computed(() => {
  const width = props.drawing.post_diameter
  return stub(postSide.value * (props.drawing.foot_width / 2 - props.drawing.bar_inset - width / 2), width)
})
/** The words stand inside, toward the middle. */
const barIsLeft = computed(() => props.leftHanded === props.drawing.opposite_build)
function stub(middle: number, width: number) {
  const top = yLower(bellyAt(middle) - thickness.value)
  const drawn = width * props.geometry.scale
  const inward = Math.sign(props.geometry.centre - x(middle))
  return { x: x(middle) - drawn / 2, y: top, width: drawn, inner: x(middle) + inward * (drawn / 2 + 6) }
}

/** Wheels in the legs, seen from their edge; with the legs left out they stand in what is drawn of them. */
const wheels = computed(() => {
  const spread = props.drawing.wheels
  if (spread === null || spread === undefined) return []
  const low = highest.value * 0.2
  const y = leftOut.value > 0 ? yLower(Math.min(low, breakLow.value * 0.6)) : yLower(low)
  const half = props.drawing.foot_width * 0.085 * props.geometry.scale
  return [-1, 1].map((side) => ({ x: x((side * spread) / 2) - half, y: y - 5, width: 2 * half, ticks: Array.from({ length: 7 }, (_, i) => x((side * spread) / 2) - half + (2 * half * (i + 1)) / 8) }))
})

function dot(diameter: number): number {
  return Math.max(3.2, (diameter / 2) * props.geometry.scale)
}
function wave(y: number): string {
  const half = reach.value * 0.92 * props.geometry.scale
  const from = props.geometry.centre - half
  const bumps = Array.from({ length: 8 }, (_, i) => `q${half / 16} ${i % 2 ? 7 : -7} ${half / 8} 0 t${half / 8} 0`)
  return `M${from} ${y} ${bumps.join(' ')}`
}
const described = computed(() => {
  const parts = strings.value.map((s) =>
    s.crown_now === null ? t('not_measured', { name: s.name }) : `${s.name} ${(s.crown_now - s.crown_wanted).toFixed(1)} mm`,
  )
  return t('bridge_seen_from_the_tailpiece', { join: parts.join(', ') })
})
</script>

<template>
  <svg class="end" :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="described">
    <defs>
      <pattern id="wood-to-take" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="6" class="hatch" />
      </pattern>
      <clipPath id="upper-part"><rect x="0" y="0" :width="width" :height="leftOut > 0 ? breakY - 7 : height" /></clipPath>
      <clipPath id="lower-part"><rect x="0" :y="breakY + 7" :width="width" :height="height" /></clipPath>
    </defs>

    <g v-for="s in isOfCrown ? strings : []" :key="`leader-${s.name}`">
      <line
        :x1="x(s.offset)"
        y1="0"
        :x2="x(s.offset)"
        :y2="yUpper(Math.max(s.underside_now ?? 0, s.underside_wanted) + s.diameter) - 8"
        class="leader"
      />
    </g>

    <rect :x="bar.x" :y="bar.y" :width="bar.width" :height="height - bar.y - 4" class="stub" />
    <rect :x="post.x" :y="post.y" :width="post.width" :height="height - post.y + 4" class="stub" />
    <text :x="bar.inner" :y="height - 4" class="small" :text-anchor="barIsLeft ? 'start' : 'end'">{{ t('bar') }}</text>
    <text :x="post.inner" :y="height - 4" class="small" :text-anchor="barIsLeft ? 'end' : 'start'">{{ t('post') }}</text>
    <path :d="bellyPath" class="belly" />
    <path :d="belly2" class="belly thin" />

    <g clip-path="url(#upper-part)">
      <path :d="outline(yUpper)" class="wood" />
    </g>
    <g v-if="leftOut > 0" clip-path="url(#lower-part)">
      <path :d="outline(yLower)" class="wood" />
    </g>
    <g v-if="leftOut > 0">
      <path :d="wave(breakY - 7)" class="break" />
      <path :d="wave(breakY + 7)" class="break" />
    </g>
    <path :d="heart" class="opening" clip-path="url(#upper-part)" />
    <g v-for="(wheel, i) in wheels" :key="i">
      <rect :x="wheel.x" :y="wheel.y" :width="wheel.width" height="10" rx="2" class="wheel" />
      <line v-for="tick in wheel.ticks" :key="tick" :x1="tick" :x2="tick" :y1="wheel.y + 1" :y2="wheel.y + 9" class="knurl" />
    </g>

    <path :d="boardPath" class="board" />
    <path v-if="woodPath" :d="woodPath" class="to-take" />
    <path v-if="nowPath" :d="nowPath" class="now" />
    <path :d="wantedPath" class="wanted" />

    <g v-for="s in strings" :key="s.name">
      <circle
        v-if="s.underside_now !== null"
        :cx="x(s.offset)"
        :cy="yUpper(s.underside_now + s.diameter / 2)"
        :r="dot(s.diameter)"
        class="string-now"
        :class="{ assumed: s.assumed }"
      />
      <circle
        :cx="x(s.offset)"
        :cy="yUpper(s.underside_wanted + s.diameter / 2)"
        :r="dot(s.diameter)"
        class="string-wanted"
      />
    </g>

    <text :x="geometry.centre - sideAt" :y="sideY" class="side">
      {{ leftHanded ? t('treble') : t('bass') }}
    </text>
    <text :x="geometry.centre + sideAt" :y="sideY" class="side" text-anchor="end">
      {{ leftHanded ? t('bass') : t('treble') }}
    </text>
  </svg>
</template>

<style scoped>
.wheel {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.knurl {
  stroke: var(--ink);
  stroke-width: 0.75;
}
.end {
  display: block;
}
.leader {
  stroke: var(--quiet);
  stroke-width: 0.8;
}
.hatch {
  stroke: var(--ink);
  stroke-width: 1;
}
.wood {
  fill: var(--wood);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.opening {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.to-take {
  fill: url(#wood-to-take);
  stroke: none;
}
.now {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 2 3;
}
.wanted {
  fill: none;
  stroke: var(--action);
  stroke-width: 3;
}
.board {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 12 4 2 4;
}
.belly {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.belly.thin {
  stroke-width: 1;
}
.stub {
  fill: var(--wood);
  stroke: var(--ink);
  stroke-width: 1;
}
.break {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
}
.string-now {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.string-now.assumed {
  stroke-dasharray: 3 2;
}
.string-wanted {
  fill: var(--action);
}
.small {
  fill: var(--quiet);
  font-size: 13px;
}
.side {
  fill: var(--ink);
  font-size: 17px;
}
</style>
