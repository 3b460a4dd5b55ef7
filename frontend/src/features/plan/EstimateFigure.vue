<script setup lang="ts">
/** What is wrong, drawn from the readings: as it is, dashed, and as it is wanted. */
import { computed } from 'vue'
import type { EstimateOnPaper } from '@/api'

const props = defineProps<{ figure: EstimateOnPaper['figures'][number] }>()
const WIDTH = 760
const HEIGHT = 170
const PAD = { left: 40, right: 150, top: 24, foot: 44 }
const points = computed(() => props.figure.curves.flatMap((curve) => curve.points))
const span = computed(() => {
  const xs = points.value.map((point) => point.x)
  const ys = points.value.map((point) => point.y)
  return { left: Math.min(...xs), wide: Math.max(Math.max(...xs) - Math.min(...xs), 1e-6), low: Math.min(...ys), tall: Math.max(Math.max(...ys) - Math.min(...ys), 1e-6) }
})
const x = (at: number) => PAD.left + ((at - span.value.left) / span.value.wide) * (WIDTH - PAD.left - PAD.right)
const y = (at: number) => HEIGHT - PAD.foot - ((at - span.value.low) / span.value.tall) * (HEIGHT - PAD.foot - PAD.top)
const line = (of: { x: number; y: number }[]) => of.map((point) => `${x(point.x)},${y(point.y)}`).join(' ')
</script>

<template>
  <figure>
    <figcaption>{{ figure.title }}</figcaption>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="figure.title">
      <g v-for="(curve, i) in figure.curves" :key="curve.kind" :class="curve.is_wanted ? 'wanted' : 'now'">
        <polyline :points="line(curve.points)" />
        <circle v-for="(point, j) in curve.points" :key="j" :cx="x(point.x)" :cy="y(point.y)" :r="curve.is_wanted ? 2 : 4" />
        <line :x1="WIDTH - 124" :x2="WIDTH - 84" :y1="30 + 26 * i" :y2="30 + 26 * i" />
        <text :x="WIDTH - 74" :y="35 + 26 * i">{{ curve.kind }}</text>
      </g>
      <text v-for="name in figure.names" :key="name.words" :x="x(name.x)" :y="HEIGHT - 10" text-anchor="middle">{{ name.words }}</text>
    </svg>
    <p>{{ figure.stretch }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: var(--space-4) 0 0;
}
figcaption {
  font-weight: 700;
}
svg {
  width: 100%;
}
polyline,
line {
  fill: none;
  stroke: var(--ink);
}
.now polyline,
.now line {
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.wanted polyline,
.wanted line {
  stroke-width: 3;
}
circle,
text {
  fill: var(--ink);
}
text {
  font-size: 15px;
}
p {
  margin: 0;
  color: var(--quiet);
}
</style>
