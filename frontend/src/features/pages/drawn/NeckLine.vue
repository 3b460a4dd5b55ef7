<script setup lang="ts">
/** The board's line drawn out to the bridge, against the one that is wanted: how far off it is, and what a wedge does. */
import { computed } from 'vue'
import type { DrawnNeck } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnNeck; width: number; height: number }>()

const LEFT = 30
const RIGHT = 190
const LEVEL = 128
const scale = computed(() => (props.width - LEFT - RIGHT) / props.drawing.length)
/** What lies off is drawn so many times larger than lengths, and all of it fits. */
const stretch = computed(() => {
  const { low, aim, high, projection, then } = props.drawing
  const farthest = Math.max(0.5, ...[low, high, projection ?? aim, then ?? aim].map((value) => Math.abs(value - aim)))
  return Math.max(1, Math.min(40, Math.round(62 / farthest / scale.value)))
})
const x = (along: number) => LEFT + along * scale.value
/** A line from the nut to a height at the bridge, at a place along it; the wanted one lies level. */
const y = (projection: number, along = props.drawing.length) => LEVEL - (projection - props.drawing.aim) * (along / props.drawing.length) * scale.value * stretch.value
const line = (projection: number, from = 0, to = props.drawing.length) => `M${x(from)} ${y(projection, from)} L${x(to)} ${y(projection, to)}`
const now = computed(() => props.drawing.projection)
const isMoved = computed(() => props.drawing.then !== null && now.value !== null && Math.abs(props.drawing.then - now.value) > 0.04)
const side = computed(() => (now.value === null || props.drawing.side === 'in_band' ? '' : props.drawing.side))
const ruler = computed(() => x(props.drawing.length) + 26)
const said = computed(() => t('projection_wanted_to', { mm: now.value === null ? t('not_read') : mm(now.value, 1), mm2: mm(props.drawing.low, 1), mm3: mm(props.drawing.high, 1), mm4: isMoved.value && props.drawing.then !== null ? t('with_what_is_tried', { mm: mm(props.drawing.then, 1) }) : '' }))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="said">
    <path :d="`M${x(drawing.neck)} ${LEVEL + 92} Q${x(drawing.neck + (drawing.length - drawing.neck) * 0.6)} ${LEVEL + 70} ${x(drawing.length) + 60} ${LEVEL + 78}`" class="outline" />
    <path :d="`M${x(0)} ${LEVEL + 26} L${x(drawing.neck)} ${LEVEL + 34} v58`" class="thin" />
    <path :d="line(drawing.aim)" class="extension" />
    <template v-if="now !== null">
      <path :d="`${line(now, 0, drawing.board)} l0 12 L${x(0)} ${y(now, 0) + 18} Z`" class="wood" />
      <path :d="line(now, drawing.board)" class="before" />
    </template>
    <path v-if="isMoved && drawing.then !== null" :d="line(drawing.then)" class="wanted" />
    <path v-if="drawing.wedge > 0.001 && now !== null" :d="`M${x(0)} ${y(now, 0) + 18} L${x(drawing.neck)} ${y(now, drawing.neck) + 15} v${drawing.wedge * scale * stretch} Z`" class="head" />
    <text v-if="drawing.wedge > 0.001" :x="x(drawing.neck / 2)" :y="LEVEL - 34" class="middle bold">{{ t('wedge', { mm: mm(drawing.wedge, 2) }) }}</text>
    <rect :x="x(0) - 5" :y="LEVEL - 10" width="7" height="26" class="paper" />
    <path :d="`M${x(drawing.length) - 4} ${LEVEL + 74} L${x(drawing.length) - 2} ${y(drawing.high) - 14} h4 L${x(drawing.length) + 4} ${LEVEL + 74} Z`" class="paper" />

    <rect :x="ruler" :y="y(drawing.high)" width="16" :height="Math.max(2, y(drawing.low) - y(drawing.high))" class="band" />
    <line :x1="ruler - 4" :x2="ruler + 20" :y1="y(drawing.aim)" :y2="y(drawing.aim)" class="outline" />
    <text :x="ruler + 26" :y="y(drawing.high) - 4" class="small">{{ mm(drawing.high, 1) }}</text>
    <text :x="ruler + 26" :y="y(drawing.aim) + 5" class="small bold">{{ mm(drawing.aim, 1) }}</text>
    <text :x="ruler + 26" :y="y(drawing.low) + 14" class="small">{{ mm(drawing.low, 1) }}</text>
    <g v-if="now !== null">
      <path :d="`M${ruler - 2} ${y(now)} l-9 -6 v12 Z`" :class="side || 'mark'" />
      <text :x="ruler + 74" :y="y(now) + 7" class="big" :class="side">{{ mm(now, 1) }}{{ side === 'below' ? '▼' : side === 'above' ? '▲' : '' }}</text>
    </g>
    <text v-else :x="ruler + 74" :y="LEVEL + 6" class="small quiet">{{ t('not_read') }}</text>
    <text v-if="isMoved && drawing.then !== null" :x="ruler + 74" :y="y(drawing.then) + (Math.abs(y(drawing.then) - y(now ?? 0)) < 24 ? -16 : 6)" class="bold then">{{ mm(drawing.then, 1) }}</text>
    <g class="small">
      <path :d="`M${x(0)} ${height - 20} H${x(drawing.length)} M${x(0)} ${height - 26} v12 M${x(drawing.neck)} ${height - 26} v12 M${x(drawing.board)} ${height - 26} v12 M${x(drawing.length)} ${height - 26} v12`" class="thin" />
      <text :x="x(drawing.neck / 2)" :y="height - 26" class="middle small">{{ t('neck', { mm: mm(drawing.neck, 0) }) }}</text>
      <text :x="x((drawing.neck + drawing.board) / 2)" :y="height - 26" class="middle small">{{ t('board_to', { mm: mm(drawing.board, 0) }) }}</text>
      <text :x="x(drawing.length)" :y="height - 2" class="middle small">{{ t('bridge_at', { mm: mm(drawing.length, 0) }) }}</text>
      <text x="8" y="16" class="small quiet">{{ t('off_the_wanted_line', { stretch }) }}</text>
    </g>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
<style scoped>
.band {
  fill: var(--note);
  stroke: var(--ink);
}
.then {
  fill: var(--action);
}
</style>
