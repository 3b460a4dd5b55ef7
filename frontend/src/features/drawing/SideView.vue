<script setup lang="ts">
/** The Side: board with its scoop, strings, bridge and tailpiece; heights stretched, and it says by how much. */
import { computed } from 'vue'
import type { Dimension, SideDrawing } from '@/api'
import { mm, plain } from '@/shared/format'
import DimensionLine from './DimensionLine.vue'
import { t } from '@/words/drawing'

const props = defineProps<{ drawing: SideDrawing; width: number; height: number }>()

/** Kept free: for the heights at both ends, for two rows of lengths over the strings and two under the belly. */
const LEFT = 96
const RIGHT = 40
const TOP = 78
const FOOT = 52

const S = computed(() => props.drawing.string_length.value)
const L = computed(() => props.drawing.fingerboard_length.value)
const behind = computed(() => (props.drawing.afterlength.value ?? (S.value ?? 0) / 6) * 1.25)
const across = computed(() => (props.width - LEFT - RIGHT) / ((S.value ?? 1) + behind.value))
const highest = computed(() => Math.max(2, ...props.drawing.strings.map((one) => one.at_bridge ?? one.at_nut ?? 0)))
const lowest = computed(() => props.drawing.projection.value ?? 0)
const upright = computed(() => (props.height - TOP - FOOT) / (highest.value + lowest.value))
const stretch = computed(() => upright.value / across.value)

const x = (along: number) => LEFT + along * across.value
const y = (over: number) => TOP + (highest.value - over) * upright.value
const points = (all: [number, number][]) => all.map(([a, b]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join(' ')

const surfaces = computed(() =>
  props.drawing.surfaces.map((surface) => ({ ...surface, line: points(surface.points.map(([along = 0, gap = 0]) => [along, -gap])) })),
)
/** The board as it is cut through: the deeper side's surface above, its thickness below. */
const board = computed(() => {
  const deep = [...props.drawing.surfaces].sort((one, other) => other.deepest - one.deepest)[0]
  const thick = props.drawing.board_thickness.value ?? 5
  if (!deep || L.value === null) return ''
  const upper = deep.points.map(([along = 0, gap = 0]): [number, number] => [along, -gap])
  return points([...upper, [L.value, -thick], [0, -thick]])
})
const bridge = computed(() => {
  if (S.value === null) return ''
  const [foot, top] = [props.drawing.foot_thickness.value ?? 4, props.drawing.top_thickness.value ?? 2]
  // The tailpiece face is flat and square to the top; the front face tapers.
  const back = S.value + foot / 2
  return points([[back, -lowest.value], [back, crownOver.value], [back - top, crownOver.value], [back - foot, -lowest.value]])
})
/** The crown over the board's line: where the highest string bears, or as it is planned. */
const crownOver = computed(() => {
  const bears = props.drawing.strings.map((one) => one.at_bridge).filter((one) => one !== null)
  return bears.length ? Math.max(...bears) : (props.drawing.crown_height ?? lowest.value) - lowest.value
})
const strings = computed(() =>
  props.drawing.strings.flatMap((one, i) => {
    if (S.value === null || one.at_nut === null || one.at_bridge === null) return []
    return [{ ...one, thick: i === 0, line: points([[0, one.at_nut], [S.value, one.at_bridge], ...tail(one.at_tail)]) }]
  }),
)
/** From the crown down to the tailpiece. */
function tail(at: number | null): [number, number][] {
  const long = props.drawing.afterlength.value
  return S.value === null || at === null || long === null ? [] : [[S.value + long, at]]
}
const belly = computed(() => {
  if (S.value === null) return ''
  const reach = S.value * 0.1
  return `M${x(S.value - reach)} ${y(-lowest.value) + 7} Q${x(S.value)} ${y(-lowest.value) - 7} ${x(S.value + reach)} ${y(-lowest.value) + 7}`
})

/** Heights read at the same place stand one over the other, the higher string's first. */
function stacked(at: 'at_nut' | 'at_end'): { name: string; text: string; assumed: boolean }[] {
  return [...props.drawing.strings]
    .filter((one) => one[at] !== null)
    .sort((one, other) => (other[at] ?? 0) - (one[at] ?? 0))
    .map((one) => ({ name: one.name, text: `${one.name} ${mm(one[at] ?? 0)}`, assumed: at === 'at_nut' && one.assumed }))
}
const lengthOf = (one: Dimension) => (one.value === null ? '' : plain(Number(one.value.toFixed(1))))
const described = computed(() => {
  const d = props.drawing
  const told = [
    d.string_length.value !== null && t('string_length', { length_of: lengthOf(d.string_length) }),
    d.projection.value !== null && t('projection', { length_of: lengthOf(d.projection) }),
    ...stacked('at_nut').map((one) => t('at_the_nut', { text: one.text })),
    ...stacked('at_end').map((one) => t('at_the_boards_end', { text: one.text })),
    ...d.surfaces.map((one) => t('scoop_on_the_side', { mm: mm(one.deepest), side: one.side, wanted: one.assumed ? ', wanted' : '' })),
    d.break_angle.value !== null && t('over_the_bridge', { plain: plain(d.break_angle.value) }),
  ]
  return t('the_instrument_from_its_side', { join: told.filter(Boolean).join(', ') })
})
</script>

<template>
  <svg v-if="S !== null && L !== null" :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="described">
    <polygon :points="board" class="wood" />
    <polyline v-for="one in surfaces" :key="one.side" :points="one.line" class="surface" :class="[one.side, { assumed: one.assumed }]" />
    <line :x1="x(0)" :y1="y(0)" :x2="x(L)" :y2="y(0)" class="straight" />
    <line :x1="x(L)" :y1="y(0)" :x2="x(S)" :y2="y(0)" class="extended" />
    <polygon :points="bridge" class="wood" />
    <path :d="belly" class="belly" />
    <rect :x="x(0) - 7" :y="y(Math.max(...drawing.strings.map((one) => one.at_nut ?? 0), 0.4))" width="7" :height="y(-(drawing.board_thickness.value ?? 5)) - y(Math.max(...drawing.strings.map((one) => one.at_nut ?? 0), 0.4))" class="wood" />
    <polyline v-for="one in strings" :key="one.name" :points="one.line" class="string" :class="{ thick: one.thick }" />

    <DimensionLine :x1="x(0)" :y1="20" :x2="x(S)" :y2="20" :text="t('string', { length_of: lengthOf(drawing.string_length) })" :assumed="drawing.string_length.assumed" />
    <DimensionLine :x1="x(0)" :y1="44" :x2="x(L)" :y2="44" :text="t('board', { length_of: lengthOf(drawing.fingerboard_length) })" :assumed="drawing.fingerboard_length.assumed" />
    <DimensionLine v-if="drawing.afterlength.value !== null" :x1="x(S)" :y1="44" :x2="x(S + drawing.afterlength.value)" :y2="44" :text="lengthOf(drawing.afterlength)" :assumed="drawing.afterlength.assumed" />
    <g v-if="drawing.neck_length.value !== null">
      <DimensionLine :x1="x(0)" :y1="height - 12" :x2="x(drawing.neck_length.value)" :y2="height - 12" :text="t('neck', { length_of: lengthOf(drawing.neck_length) })" :assumed="drawing.neck_length.assumed" />
      <DimensionLine v-if="drawing.stop_length.value !== null" :x1="x(drawing.neck_length.value)" :y1="height - 12" :x2="x(drawing.neck_length.value + drawing.stop_length.value)" :y2="height - 12" :text="t('stop', { length_of: lengthOf(drawing.stop_length) })" :assumed="drawing.stop_length.assumed" />
    </g>
    <DimensionLine v-if="drawing.projection.value !== null" :x1="x(S) - 13" :y1="y(0)" :x2="x(S) - 13" :y2="y(-drawing.projection.value)" :text="t('projection', { length_of: lengthOf(drawing.projection) })" :assumed="drawing.projection.assumed" side="start" :clear="y(0) + 26 + stacked('at_end').length * 19" />
    <text v-for="(one, i) in stacked('at_nut')" :key="`nut ${one.name}`" :x="x(0) - 16" :y="y(0) - 14 + i * 19" text-anchor="end" class="figure" :class="{ assumed: one.assumed }">{{ one.text }}</text>
    <text v-for="(one, i) in stacked('at_end')" :key="`end ${one.name}`" :x="x(L) + 5" :y="y(0) + 22 + i * 19" class="figure">{{ one.text }}</text>
    <text v-for="(one, i) in surfaces" :key="`scoop ${one.side}`" :x="x(L * 0.5)" :y="y(-(drawing.board_thickness.value ?? 5)) + 20 + i * 19" text-anchor="middle" class="figure" :class="{ assumed: one.assumed }">{{ t('scoop', { side: one.side, mm: mm(one.deepest) }) }}</text>
    <text v-if="drawing.break_angle.value !== null" :x="x(S)" :y="y(crownOver) - 8" text-anchor="middle" class="figure" :class="{ assumed: drawing.break_angle.assumed }">{{ plain(drawing.break_angle.value) }}°</text>
    <text :x="width - 8" :y="height - 12" text-anchor="end" class="note">{{ t('heights', { stretch: stretch.toFixed(1) }) }}</text>
  </svg>
</template>

<style scoped src="./lines.css"></style>
<style scoped>
.surface {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.surface.treble {
  stroke-width: 1;
}
.surface.assumed {
  stroke-dasharray: 5 4;
}
.straight {
  stroke: var(--quiet);
  stroke-width: 1;
}
.extended {
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 12 4 2 4;
}
.belly {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.string.thick {
  stroke-width: 2.6;
}
</style>
