<script setup lang="ts">
/** The Plan: board edges, string paths, margins, feet, bar, and where the post's ends stand; widths stretched. */
import { computed } from 'vue'
import type { PlanDrawing } from '@/api'
import { mm, plain } from '@/shared/format'
import DimensionLine from './DimensionLine.vue'
import { t } from '@/words/drawing'

const props = defineProps<{ drawing: PlanDrawing; width: number; height: number; leftHanded: boolean }>()

const LEFT = 84
const RIGHT = 96
const PAD = 58

const S = computed(() => props.drawing.string_length.value)
const L = computed(() => props.drawing.fingerboard_length.value)
const along = computed(() => (props.width - LEFT - RIGHT) / ((S.value ?? 1) * 1.06))
const halves = computed(() => [
  (props.drawing.width_end.value ?? 0) / 2,
  (props.drawing.foot_width.value ?? 0) / 2,
  ...props.drawing.strings.map((one) => Math.abs(one.at_bridge) + one.diameter),
])
const acrossScale = computed(() => (props.height - 2 * PAD) / 2 / Math.max(1, ...halves.value))
const stretch = computed(() => acrossScale.value / along.value)
const middle = computed(() => props.height / 2)
/** Scroll to the left, so the bass side lies below; a left-handed instrument's lies above. */
const hand = computed(() => (props.leftHanded ? 1 : -1))

const x = (at: number) => LEFT + at * along.value
const y = (offset: number) => middle.value + hand.value * offset * acrossScale.value
const points = (all: [number, number][]) => all.map(([a, b]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join(' ')

const board = computed(() => {
  const [nut, end] = [props.drawing.width_nut.value, props.drawing.width_end.value]
  if (nut === null || end === null || L.value === null) return ''
  return points([[0, -nut / 2], [L.value, -end / 2], [L.value, end / 2], [0, nut / 2]])
})
const foot = computed(() => {
  const [wide, thick] = [props.drawing.foot_width.value, props.drawing.foot_thickness.value ?? 4]
  if (wide === null || S.value === null) return []
  const long = wide * 0.3
  return [-1, 1].map((side) => {
    const [near, far] = [side * (wide / 2 - long), (side * wide) / 2]
    return points([[(S.value ?? 0) - thick / 2, near], [(S.value ?? 0) + thick / 2, near], [(S.value ?? 0) + thick / 2, far], [(S.value ?? 0) - thick / 2, far]])
  })
})
const backOfFoot = computed(() => (S.value ?? 0) + (props.drawing.foot_thickness.value ?? 4) / 2)
const round = computed(() => Math.max(4, ((props.drawing.post_diameter ?? 6) / 2) * acrossScale.value * 0.5))
const aside = computed(() => {
  const off = props.drawing.neck_off_middle
  if (off === null) return ''
  if (Math.abs(off) < 0.05) return t('the_neck_points_to_the')
  return t(off > 0 ? 'the_neck_points_to_the_3' : 'the_neck_points_to_the_4', { mm: mm(Math.abs(off), 1) })
})
const described = computed(() => {
  const d = props.drawing
  const told = [
    d.width_nut.value !== null && t('board_wide_at_the_nut', { plain: plain(d.width_nut.value) }),
    d.width_end.value !== null && t('at_its_end', { plain: plain(d.width_end.value) }),
    d.margins_at_end.length && t('margins_there_treble', { join: d.margins_at_end.map((one) => mm(one, 1)).join(' bass, ') }),
    d.bar_edge.value !== null && t('the_bars_outer_edge_from', { plain: plain(Math.abs(d.bar_edge.value)) }),
    ...d.post.map((one) => t('the_posts_behind_the_foot', { end: one.end, mm: mm(one.behind, 1), mm2: mm(one.across, 1) })),
    aside.value,
  ]
  return t('the_instrument_from_above', { join: told.filter(Boolean).join(', ') })
})
/** Where a string that was read elsewhere is wanted: a short tick across its way. */
const OFF = 0.1
const ticks = computed(() =>
  props.drawing.strings.flatMap((one) =>
    ([[0, one.at_nut, one.wanted_at_nut], [S.value ?? 0, one.at_bridge, one.wanted_at_bridge]] as const)
      .filter(([, is, wanted]) => Math.abs(is - wanted) >= OFF)
      .map(([at, , wanted]) => ({ x1: x(at) - 7, x2: x(at) + 7, y1: y(wanted), y2: y(wanted) })),
  ),
)
/** The strings' names at the nut, moved apart where they would stand in each other. */
const LINE = 17
const labelled = computed(() => {
  const places = props.drawing.strings.map((one) => y(one.at_nut))
  const [first = 0, last = 0] = [places[0], places.at(-1)]
  const gap = places.length > 1 ? (last - first) / (places.length - 1) : 0
  const step = Math.sign(gap) * Math.max(LINE, Math.abs(gap))
  const from = (first + last) / 2 - (step * (places.length - 1)) / 2
  return props.drawing.strings.map((one, i) => ({ name: one.name, y: from + i * step }))
})
</script>

<template>
  <svg v-if="S !== null && L !== null" :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="img" :aria-label="described">
    <line :x1="x(0) - 12" :y1="middle" :x2="width - RIGHT + 20" :y2="middle" class="middle" />
    <polygon :points="board" class="wood" />
    <rect :x="x(0) - 6" :y="Math.min(y((drawing.width_nut.value ?? 0) / 2), y(-(drawing.width_nut.value ?? 0) / 2))" width="6" :height="(drawing.width_nut.value ?? 0) * acrossScale" class="wood" />
    <line v-if="drawing.bar_edge.value !== null" :x1="x(S * 0.86)" :y1="y(drawing.bar_edge.value)" :x2="width - RIGHT + 14" :y2="y(drawing.bar_edge.value)" class="bar" :class="{ assumed: drawing.bar_edge.assumed }" />
    <polygon v-for="one in foot" :key="one" :points="one" class="wood" />
    <polyline v-for="one in drawing.strings" :key="one.name" :points="points([[0, one.at_nut], [L, one.at_end], [S, one.at_bridge]])" class="string" :style="{ strokeWidth: Math.max(1, one.diameter * 1.6) }" />
    <g v-for="one in drawing.post" :key="one.end">
      <circle :cx="x(backOfFoot + one.behind)" :cy="y(one.across)" :r="round" class="post" :class="one.end" />
    </g>
    <line v-for="(tick, i) in ticks" :key="i" v-bind="tick" class="tick" />
    <text v-for="one in labelled" :key="one.name" :x="x(0) - 14" :y="one.y + 5" text-anchor="end" class="name">{{ one.name }}</text>

    <DimensionLine v-if="drawing.width_nut.value !== null" :x1="x(0) - 40" :y1="y(-drawing.width_nut.value / 2)" :x2="x(0) - 40" :y2="y(drawing.width_nut.value / 2)" :text="plain(drawing.width_nut.value)" :assumed="drawing.width_nut.assumed" side="start" />
    <DimensionLine v-if="drawing.width_end.value !== null" :x1="x(L) + 14" :y1="y(-drawing.width_end.value / 2)" :x2="x(L) + 14" :y2="y(drawing.width_end.value / 2)" :text="plain(drawing.width_end.value)" :assumed="drawing.width_end.assumed" />
    <DimensionLine v-if="drawing.foot_width.value !== null" :x1="x(S) + 62" :y1="y(-drawing.foot_width.value / 2)" :x2="x(S) + 62" :y2="y(drawing.foot_width.value / 2)" :text="plain(drawing.foot_width.value)" :assumed="drawing.foot_width.assumed" />
    <g v-if="drawing.margins_at_end.length === 2 && drawing.width_end.value !== null">
      <text :x="x(L) - 8" :y="y(-drawing.width_end.value / 2) - hand * 18 + 5" text-anchor="end" class="figure">{{ t('margin', { mm: mm(drawing.margins_at_end[0] ?? 0, 1) }) }}</text>
      <text :x="x(L) - 8" :y="y(drawing.width_end.value / 2) + hand * 18 + 5" text-anchor="end" class="figure">{{ t('margin', { mm: mm(drawing.margins_at_end[1] ?? 0, 1) }) }}</text>
    </g>
    <text :x="LEFT - 6" :y="hand < 0 ? height - 12 : 20" class="side">{{ t('bass') }}</text>
    <text :x="LEFT - 6" :y="hand < 0 ? 20 : height - 12" class="side">{{ t('treble') }}</text>
    <text v-if="aside" :x="x(S * 0.5)" :y="height - 10" text-anchor="middle" class="figure">{{ aside }}</text>
    <text :x="width - 8" :y="height - 12" text-anchor="end" class="note">{{ t('widths', { stretch: stretch.toFixed(1) }) }}</text>
  </svg>
</template>

<style scoped src="./lines.css"></style>
<style scoped>
.middle {
  stroke: var(--quiet);
  stroke-width: 1;
  stroke-dasharray: 12 4 2 4;
}
.tick {
  stroke: var(--ink);
  stroke-width: 2;
}
.bar {
  stroke: var(--ink);
  stroke-width: 3;
}
.bar.assumed {
  stroke-width: 1.4;
  stroke-dasharray: 5 4;
}
.post {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.post.bottom {
  stroke-dasharray: 4 3;
}
.name,
.side {
  fill: var(--ink);
  font-size: 17px;
}
</style>
