<script setup lang="ts">
/** A drawing over two axes, drawn from the points that the server worked out; hatched is only what is to come off. */
import { computed, useId } from 'vue'
import type { PagePlot } from '@/api'
import { t } from '@/words/pages'

/** most : up to here the axis goes at least, so that plots beside each other have one scale. */
const props = defineProps<{ plot: PagePlot; width: number; height: number; most?: number }>()
const id = useId()
const LEFT = 54
const RIGHT = 44
const TOP = 10
const FOOT = 40

const all = computed(() => props.plot.curves.flatMap((curve) => curve.points))
const xs = computed(() => all.value.map(([x = 0]) => x))
const ys = computed(() => [0, props.most ?? 0, ...all.value.map(([, y = 0]) => y)])
const fromX = computed(() => Math.min(...xs.value))
const toX = computed(() => Math.max(...xs.value, fromX.value + 1))
const lowY = computed(() => Math.min(...ys.value))
const highY = computed(() => Math.max(...ys.value, lowY.value + 0.2) * 1.06)

const x = (value: number) => LEFT + ((value - fromX.value) / (toX.value - fromX.value)) * (props.width - LEFT - RIGHT)
function y(value: number): number {
  const share = (value - lowY.value) / (highY.value - lowY.value)
  return TOP + (props.plot.down ? share : 1 - share) * (props.height - TOP - FOOT)
}
const line = (points: number[][]) => points.map(([a = 0, b = 0]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join(' ')

/** Round steps, about as many as fit. */
function ticks(from: number, to: number, most: number): number[] {
  const rough = (to - from) / most
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map((times) => times * power).find((one) => one >= rough) ?? rough
  const first = Math.ceil(from / step - 1e-9)
  return Array.from({ length: Math.floor(to / step - first + 1e-9) + 1 }, (_, i) => (first + i) * step)
}
const across = computed(() => ticks(fromX.value, toX.value, 8))
const upward = computed(() => ticks(lowY.value, highY.value, 4))
const tidy = (value: number) => String(Number(value.toFixed(2))).replace('-', '−')
/** Curves' names at their right ends, moved apart where they would stand in each other. */
const LINE = 17
const ends = computed(() => {
  const named = props.plot.curves.filter((curve) => props.plot.curves.length > 2 && curve.points.length)
  const found = named.map((curve) => ({ label: curve.label, y: y(curve.points.at(-1)?.[1] ?? 0) })).sort((a, b) => a.y - b.y)
  for (let i = 1; i < found.length; i++) {
    const [before, here] = [found[i - 1], found[i]]
    if (before && here && here.y - before.y < LINE) here.y = before.y + LINE
  }
  return found
})
</script>

<template>
  <figure>
    <figcaption>{{ plot.title }}<template v-if="plot.removed.length">{{ t('hatched_is_to_come_off') }}</template></figcaption>
    <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="plot.says">
      <defs>
        <pattern :id="id" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line x1="0" y1="0" x2="0" y2="7" /></pattern>
      </defs>
      <g class="grid">
        <line v-for="tick in upward" :key="tick" :x1="LEFT" :x2="width - RIGHT" :y1="y(tick)" :y2="y(tick)" />
      </g>
      <text v-for="tick in upward" :key="`y${tick}`" :x="LEFT - 8" :y="y(tick) + 5" text-anchor="end">{{ tidy(tick) }}</text>
      <text v-for="tick in across" :key="`x${tick}`" :x="x(tick)" :y="height - FOOT + 18" text-anchor="middle">{{ tidy(tick) }}</text>
      <text class="axis" :x="width - RIGHT" :y="height - 4" text-anchor="end">{{ plot.x_label }}</text>
      <text class="axis" :x="LEFT" :y="height - 4">{{ plot.y_label }}</text>
      <polygon v-for="(part, i) in plot.removed" :key="i" :points="line(part)" :fill="`url(#${id})`" />
      <polyline v-for="curve in plot.curves" :key="curve.label" :points="line(curve.points)" :class="curve.kind" class="curve" />
      <text v-for="end in ends" :key="end.label" class="name" :x="width - RIGHT + 8" :y="end.y + 5">{{ end.label }}</text>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  font-weight: 700;
}
svg {
  display: block;
  width: 100%;
  height: auto;
}
pattern line {
  stroke: var(--ink);
  stroke-width: 2;
}
.grid line {
  stroke: var(--hairline);
  stroke-width: 1;
}
text {
  fill: var(--ink);
  font-size: 15px;
}
.axis {
  fill: var(--quiet);
}
.name {
  font-weight: 700;
  font-size: 17px;
}
.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linejoin: round;
}
.then {
  stroke: var(--action);
}
.wanted,
.limit {
  stroke-dasharray: 6 4;
  stroke-width: 1.4;
}
</style>
