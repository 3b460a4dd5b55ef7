<script setup lang="ts">
/** One end of the post from above, enlarged and true to scale: the foot's corner, the bar's side, and its numbered trail. */
import { computed } from 'vue'
import type { PlaceView, SoundView } from '@/api'

const props = defineProps<{ view: SoundView; end: 'top' | 'bottom'; leftHanded: boolean; selected: number; width: number; height: number }>()
const emit = defineEmits<{ select: [place: number] }>()

interface Spot {
  place: PlaceView
  behind: number
  across: number
  known: string
  knownTo: number
}

const PAD = 34
const MARGIN = 1.4

const spots = computed<Spot[]>(() =>
  props.view.places.flatMap((place) => {
    const end = place.ends.find((one) => one.end === props.end)
    if (!end || end.behind === null || end.across === null) return []
    return [{ place, behind: end.behind, across: end.across, known: end.known, knownTo: end.known_to }]
  }),
)
const radius = computed(() => (props.view.post_diameter ?? 6) / 2)
const edge = computed(() => (props.view.foot_width === null ? null : props.view.foot_width / 2))
const wanted = computed(() => {
  const at = props.view.wanted
  return at && at.behind !== null && at.across !== null ? { behind: at.behind, across: at.across } : null
})

/** The stretch that is shown: every place with its round, the back of the foot and its outer edge. [mm] */
const shown = computed(() => {
  const all = [...spots.value.map(({ behind, across }) => ({ behind, across })), ...(wanted.value ? [wanted.value] : [])]
  const behind = all.map((one) => one.behind)
  const across = all.map((one) => one.across)
  const low = { behind: Math.min(-2.2, ...behind.map((b) => b - radius.value)), across: Math.min(...across.map((a) => a - radius.value), (edge.value ?? 0) - 6) - MARGIN / 2 }
  const high = { behind: Math.max(4, ...behind.map((b) => b + radius.value)) + MARGIN, across: Math.max(edge.value ?? 0, ...across.map((a) => a + radius.value)) + MARGIN }
  return { low, high }
})
const scale = computed(() => {
  const { low, high } = shown.value
  return Math.min((props.width - 2 * PAD) / (high.behind - low.behind), (props.height - 2 * PAD) / (high.across - low.across))
})
const x = (behind: number) => props.width / 2 + (behind - (shown.value.low.behind + shown.value.high.behind) / 2) * scale.value
/** Scroll to the left, so the bass side lies below; a left-handed instrument's lies above. */
const hand = computed(() => (props.leftHanded ? 1 : -1))
const y = (across: number) => props.height / 2 + hand.value * (across - (shown.value.low.across + shown.value.high.across) / 2) * scale.value

const foot = computed(() => {
  if (edge.value === null || props.view.foot_width === null) return ''
  const inner = Math.max(shown.value.low.across, edge.value - props.view.foot_width * 0.3)
  const front = -(props.view.foot_thickness ?? 4)
  const corners: [number, number][] = [[front, edge.value], [0, edge.value], [0, inner], [front, inner]]
  return corners.map(([b, a]) => `${x(Math.max(b, shown.value.low.behind - MARGIN))},${y(a)}`).join(' ')
})
const trail = computed(() => spots.value.map((one) => `${x(one.behind).toFixed(1)},${y(one.across).toFixed(1)}`).join(' '))
const now = computed(() => spots.value.find((one) => one.place.is_now) ?? null)

/** Numbers of places that lie on each other stand beside each other. */
const NEAR = 15
const numbers = computed(() => {
  const groups: { spots: Spot[]; x: number; y: number }[] = []
  for (const spot of spots.value) {
    const at = { x: x(spot.behind), y: y(spot.across) }
    const near = groups.find((group) => Math.hypot(group.x - at.x, group.y - at.y) < NEAR)
    if (near) near.spots.push(spot)
    else groups.push({ spots: [spot], ...at })
  }
  return groups
})
const described = computed(() => {
  const told = spots.value.map((one) => `place ${one.place.number} ${one.behind.toFixed(1)} mm behind the foot and ${one.across.toFixed(1)} mm from the middle, ${one.known}`)
  return `The post's ${props.end} from above. ${told.join('; ') || 'Nothing is known of it yet'}.`
})
</script>

<template>
  <figure>
    <figcaption>{{ end }}</figcaption>
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="group" :aria-label="described">
      <polygon v-if="foot" :points="foot" class="wood" />
      <line :x1="x(0)" :y1="14" :x2="x(0)" :y2="height - 14" class="edge" />
      <line v-if="edge !== null" :x1="12" :y1="y(edge)" :x2="width - 12" :y2="y(edge)" class="edge" />
      <g v-if="wanted">
        <circle :cx="x(wanted.behind)" :cy="y(wanted.across)" :r="radius * scale" class="school" />
        <path :d="`M${x(wanted.behind) - 7} ${y(wanted.across)}h14M${x(wanted.behind)} ${y(wanted.across) - 7}v14`" class="cross" />
      </g>
      <circle v-if="now" :cx="x(now.behind)" :cy="y(now.across)" :r="radius * scale" class="post" :class="now.known" />
      <circle v-if="now && now.known === 'estimated'" :cx="x(now.behind)" :cy="y(now.across)" :r="now.knownTo * scale" class="unsure" />
      <polyline :points="trail" class="trail" />
      <circle v-for="one in spots" :key="one.place.number" :cx="x(one.behind)" :cy="y(one.across)" :r="one.place.is_now ? 6 : 4.5" class="spot" :class="[one.known, { old: one.place.incomparable.length }]" />
      <g v-for="group in numbers" :key="group.spots[0]!.place.number">
        <g
          v-for="(one, i) in group.spots"
          :key="one.place.number"
          role="button"
          tabindex="0"
          class="number"
          :class="{ best: one.place.is_best, chosen: one.place.number === selected }"
          :aria-label="`place ${one.place.number}, ${end}`"
          :aria-pressed="one.place.number === selected"
          @click="emit('select', one.place.number)"
          @keydown.enter.prevent="emit('select', one.place.number)"
        >
          <rect :x="group.x + 8 + 22 * i" :y="group.y - 25" width="21" height="21" rx="4" />
          <text :x="group.x + 18.5 + 22 * i" :y="group.y - 9" text-anchor="middle">{{ one.place.number }}</text>
        </g>
      </g>
      <text :x="x(0) - 6" :y="hand < 0 ? 24 : height - 14" text-anchor="end" class="note">bridge</text>
      <text :x="width - 8" :y="hand < 0 ? height - 10 : 20" text-anchor="end" class="note">tailpiece ›</text>
      <text :x="8" :y="hand < 0 ? 20 : height - 10" class="side">treble</text>
      <text :x="8" :y="hand < 0 ? height - 10 : 20" class="side">bass</text>
      <g class="bar">
        <path :d="`M${width - 40 - scale} ${height / 2 + 0.5}h${scale}`" transform="translate(0 0)" />
        <text :x="width - 40 - scale / 2" :y="height / 2 - 6" text-anchor="middle" class="note">1 mm</text>
      </g>
    </svg>
  </figure>
</template>

<style scoped src="../drawing/lines.css"></style>
<style scoped>
figure {
  margin: 0;
}
figcaption {
  font-weight: 700;
}
svg {
  max-width: 100%;
  height: auto;
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.edge {
  stroke: var(--quiet);
  stroke-width: 1;
  stroke-dasharray: 10 4 2 4;
}
.post {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
.post.estimated {
  stroke-dasharray: 9 5;
}
.school {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.2;
  stroke-dasharray: 3 4;
}
.cross {
  stroke: var(--quiet);
  stroke-width: 1.6;
}
.unsure {
  fill: var(--ink);
  fill-opacity: 0.07;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 2 3;
}
.trail {
  fill: none;
  stroke: var(--action);
  stroke-width: 1.6;
}
.spot {
  fill: var(--action);
  stroke: var(--sheet);
  stroke-width: 1.5;
}
.spot.estimated,
.spot.old {
  fill: var(--sheet);
  stroke: var(--action);
  stroke-width: 2;
}
.number {
  cursor: pointer;
}
.number rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1;
}
.number text {
  fill: var(--ink);
  font-size: 16px;
}
.number.best rect {
  stroke-width: 2.6;
}
.number.chosen rect {
  fill: var(--ink);
}
.number.chosen text {
  fill: var(--sheet);
}
.side {
  fill: var(--ink);
  font-size: 16px;
}
.bar path {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
