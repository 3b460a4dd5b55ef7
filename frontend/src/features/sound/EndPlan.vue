<script setup lang="ts">
/** One end of the post from above: its numbered trail enlarged, and small beside it where that lies under the foot. */
import { computed } from 'vue'
import type { SoundView } from '@/api'
import { frameOf, labelsOf, NUMBER, spotsOf, stretchOf } from './endPlan'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; end: 'top' | 'bottom'; leftHanded: boolean; selected: number; width: number; height: number }>()
const emit = defineEmits<{ select: [place: number] }>()

const PAD = 44
const LEAST_MM = 1.6
const INSET = 106
/** Scroll to the left, so the bass side lies below; a left-handed instrument's lies above. */
const hand = computed(() => (props.leftHanded ? 1 : -1))
const spots = computed(() => spotsOf(props.view, props.end))
const now = computed(() => spots.value.find((one) => one.place.is_now) ?? null)
const wanted = computed(() => {
  const at = props.view.wanted
  return at && at.behind !== null && at.across !== null ? { behind: at.behind, across: at.across } : null
})
const middles = computed(() => [...spots.value, ...(wanted.value ? [wanted.value] : [])])
const frame = computed(() =>
  frameOf(stretchOf(middles.value.length ? middles.value : [{ behind: 4, across: 14 }], LEAST_MM), { left: PAD, top: PAD, width: props.width - 2 * PAD - INSET / 2, height: props.height - 2 * PAD }, hand.value),
)
const labels = computed(() => labelsOf(spots.value, frame.value, { width: props.width - INSET, height: props.height }))
/** From each place to the next, with its way. */
const ways = computed(() =>
  spots.value.slice(1).map((to, i) => {
    const from = spots.value[i] ?? to
    return { x1: frame.value.x(from.behind), y1: frame.value.y(from.across), x2: frame.value.x(to.behind), y2: frame.value.y(to.across), broken: to.place.number - from.place.number > 1 || to.place.ends.some((one) => one.known === 'unknown') || from.place.incomparable.length > 0 }
  }),
)
const TIP = 8
const arrows = computed(() =>
  ways.value.flatMap(({ x1, y1, x2, y2 }) => {
    const long = Math.hypot(x2 - x1, y2 - y1)
    if (long < 16) return []
    const [ux, uy] = [(x2 - x1) / long, (y2 - y1) / long]
    const [mx, my] = [(x1 + x2) / 2 + ux * TIP / 2, (y1 + y2) / 2 + uy * TIP / 2]
    return [`${mx},${my} ${mx - ux * TIP - uy * 4},${my - uy * TIP + ux * 4} ${mx - ux * TIP + uy * 4},${my - uy * TIP - ux * 4}`]
  }),
)

const radius = computed(() => (props.view.post_diameter ?? 6) / 2)
const edge = computed(() => (props.view.foot_width === null ? null : props.view.foot_width / 2))
/** The whole of it, small: the foot's corner, the post round where it stands, and the part that is enlarged. */
const small = computed(() => {
  const outer = edge.value
  if (outer === null) return null
  const thick = props.view.foot_thickness ?? 4
  const inner = outer * 0.3
  const stretch = { behind: [-thick, Math.max(thick, ...middles.value.map((one) => one.behind + radius.value)) + 1] as [number, number], across: [Math.min(inner, ...middles.value.map((one) => one.across - radius.value)), outer + 1] as [number, number] }
  const f = frameOf(stretch, { left: props.width - INSET + 4, top: props.height - INSET - 20, width: INSET - 12, height: INSET - 8 }, hand.value)
  const corners: [number, number][] = [[-thick, outer], [0, outer], [0, inner], [-thick, inner]]
  const big = frame.value
  const seen = { wide: (props.width - INSET) / big.scale, high: props.height / big.scale }
  return { f, foot: corners.map(([b, a]) => `${f.x(b)},${f.y(a)}`).join(' '), seen }
})
const described = computed(() => {
  const told = spots.value.map((one) => t('place_mm_behind_the_foot', { number: one.place.number, behind: one.behind.toFixed(1), across: one.across.toFixed(1), known: one.known }))
  return t('the_posts_from_above_its', { end: props.end, yet: told.join('; ') || t('nothing_is_known_of_it') })
})
</script>

<template>
  <figure>
    <figcaption>{{ end }}</figcaption>
    <svg :viewBox="`0 0 ${width} ${height}`" :width="width" :height="height" role="group" :aria-label="described">
      <g v-if="small" class="small">
        <polygon :points="small.foot" class="wood" />
        <circle v-if="now" :cx="small.f.x(now.behind)" :cy="small.f.y(now.across)" :r="radius * small.f.scale" class="post" :class="now.known" />
      </g>
      <g v-if="wanted">
        <path :d="`M${frame.x(wanted.behind) - 9} ${frame.y(wanted.across)}h18M${frame.x(wanted.behind)} ${frame.y(wanted.across) - 9}v18`" class="cross" />
        <text :x="frame.x(wanted.behind) + 8" :y="frame.y(wanted.across) + (hand > 0 ? 17 : -8)" class="note">{{ t('school') }}</text>
      </g>
      <circle v-if="now" :cx="frame.x(now.behind)" :cy="frame.y(now.across)" :r="now.knownTo * frame.scale" class="unsure" />
      <line v-for="(one, i) in ways" :key="i" :x1="one.x1" :y1="one.y1" :x2="one.x2" :y2="one.y2" class="trail" :class="{ broken: one.broken }" />
      <polygon v-for="points in arrows" :key="points" :points="points" class="arrow" />
      <circle v-for="one in spots" :key="one.place.number" :cx="frame.x(one.behind)" :cy="frame.y(one.across)" :r="5" class="spot" :class="[one.known, { old: one.place.incomparable.length }]" />
      <circle v-if="now" :cx="frame.x(now.behind)" :cy="frame.y(now.across)" r="9" class="now" />
      <g v-for="label in labels" :key="label.spots[0]!.place.number">
        <line :x1="label.at.x" :y1="label.at.y" :x2="label.left + (NUMBER * label.spots.length) / 2" :y2="label.top + NUMBER / 2" class="leader" />
        <g
          v-for="(one, i) in label.spots"
          :key="one.place.number"
          role="button"
          tabindex="0"
          class="number"
          :class="{ best: one.place.is_best, chosen: one.place.number === selected }"
          :aria-label="t('place', { number: one.place.number, end })"
          :aria-pressed="one.place.number === selected"
          @click="emit('select', one.place.number)"
          @keydown.enter.prevent="emit('select', one.place.number)"
        >
          <rect :x="label.left + NUMBER * i" :y="label.top" :width="NUMBER - 1" :height="NUMBER - 1" rx="4" />
          <text :x="label.left + NUMBER * (i + 0.5) - 0.5" :y="label.top + 16.5" text-anchor="middle">{{ one.place.number }}</text>
        </g>
      </g>
      <text :x="8" :y="height / 2" class="note" :transform="`rotate(-90 8 ${height / 2})`" text-anchor="middle" dy="8">{{ t('toward_the_bridge') }}</text>
      <text :x="width - 8" :y="height / 2 - 30" class="note" :transform="`rotate(90 ${width - 8} ${height / 2 - 30})`" text-anchor="middle" dy="6">{{ t('toward_the_tailpiece') }}</text>
      <text :x="24" :y="hand < 0 ? 19 : height - 9" class="side">{{ t('treble_side_f_hole') }}</text>
      <text :x="24" :y="hand < 0 ? height - 9 : 19" class="side">{{ t('bass_side') }}</text>
      <path :d="`M${width - INSET - 10 - frame.scale} ${height - 12}v-5v5h${frame.scale}v-5`" class="scale" />
      <text :x="width - INSET - 10 - frame.scale / 2" :y="height - 17" text-anchor="middle" class="note">{{ t('n_1_mm') }}</text>
    </svg>
  </figure>
</template>

<style scoped src="../drawing/lines.css"></style>
<style scoped>
figure {
  flex: 1 1 300px;
  max-width: 408px;
  margin: 0;
}
figcaption {
  font-weight: 700;
}
svg {
  width: 100%;
  height: auto;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.post {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.post.estimated {
  stroke-dasharray: 5 3;
}
.cross {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.unsure {
  fill: var(--ink);
  fill-opacity: 0.05;
  stroke: var(--quiet);
  stroke-width: 1;
  stroke-dasharray: 2 3;
}
.trail {
  stroke: var(--action);
  stroke-width: 2;
}
.trail.broken {
  stroke-dasharray: 3 5;
}
.arrow {
  fill: var(--action);
}
.leader {
  stroke: var(--quiet);
  stroke-width: 1;
}
.spot {
  fill: var(--action);
  stroke: var(--action);
  stroke-width: 2;
}
.spot.estimated,
.spot.old {
  fill: var(--sheet);
}
.now {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
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
  stroke-width: 3;
}
.number.chosen rect {
  fill: var(--ink);
}
.number.chosen text {
  fill: var(--sheet);
}
.side {
  fill: var(--ink);
  font-size: 15px;
}
.scale {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
</style>
