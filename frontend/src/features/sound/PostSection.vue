<script setup lang="ts">
/** The post between top and back at the chosen place, from the side and from the end: which way it leans, drawn larger than it is. */
import { computed } from 'vue'
import type { SoundView } from '@/api'
import { mm } from '@/shared/format'
import { spotsOf } from './endPlan'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; leftHanded: boolean; selected: number }>()

const STRETCH = 6
const TOP = 64
const BACK = 216
const MOST = 34
const at = (end: 'top' | 'bottom') => spotsOf(props.view, end).find((one) => one.place.number === props.selected) ?? null
const ends = computed(() => {
  const [top, bottom] = [at('top'), at('bottom')]
  return top && bottom ? { top, bottom } : null
})
/** How far the top stands from over the bottom: toward the tailpiece, and outward. */
const lean = computed(() => (ends.value ? { behind: ends.value.top.behind - ends.value.bottom.behind, out: ends.value.top.across - ends.value.bottom.across } : null))
const shift = (by: number) => Math.max(-MOST, Math.min(MOST, by * STRETCH))
/** From the tailpiece the treble side, and with it the post, lies right; a left-handed instrument's lies left. */
const hand = computed(() => (props.leftHanded ? -1 : 1))
const STRAIGHT = 0.05
const words = computed(() => {
  if (!lean.value) return []
  const { behind, out } = lean.value
  return [
    Math.abs(behind) < STRAIGHT ? t('upright_from_the_side') : t(behind > 0 ? 'top_toward_tailpiece' : 'top_toward_bridge', { mm: mm(Math.abs(behind), 1) }),
    Math.abs(out) < STRAIGHT ? t('upright_from_the_end') : t(out > 0 ? 'top_outward' : 'top_inward', { mm: mm(Math.abs(out), 1) }),
  ]
})
</script>

<template>
  <figure class="section">
    <figcaption>{{ t('how_it_stands') }}</figcaption>
    <svg viewBox="0 0 240 286" role="img" :aria-label="lean ? words.join('; ') : t('its_ends_are_not_both_known')">
      <g v-for="(middle, i) in [62, 178]" :key="middle">
        <path :d="`M${middle - 50} ${TOP} q50 -14 100 0 M${middle - 50} ${BACK} q50 12 100 0`" class="plate" />
        <path v-if="i === 0" :d="`M${middle - 26} ${TOP - 8} l3 -34 h14 l3 33`" class="foot" />
        <path v-else :d="`M${middle + hand * 16} ${TOP - 7} l${-hand * 2} -10 h${-hand * 30} l${-hand * 4} 9`" class="foot" />
        <path v-if="lean" :d="`M${middle} ${TOP - 4} V${BACK + 4}`" class="plumb" />
        <line v-if="lean" :x1="middle + (i === 0 ? shift(lean.behind) : hand * shift(lean.out))" :y1="TOP - 4" :x2="middle" :y2="BACK + 5" class="post" />
        <line v-else :x1="middle" :x2="middle" :y1="TOP - 4" :y2="BACK + 5" class="unknown" />
        <text :x="middle" y="262" text-anchor="middle">{{ i === 0 ? t('from_the_side') : t('from_the_end') }}</text>
      </g>
      <text x="62" y="14" text-anchor="middle" class="quiet">{{ t('to_the_tailpiece') }} →</text>
      <text v-if="lean" x="120" y="282" text-anchor="middle" class="quiet">{{ t('lean_drawn_larger', { stretch: STRETCH }) }}</text>
    </svg>
    <p v-for="line in words" :key="line">{{ line }}</p>
    <p v-if="!lean">{{ t('its_ends_are_not_both_known') }}</p>
  </figure>
</template>

<style scoped>
.section {
  min-width: 0;
  margin: 0;
}
figcaption {
  font-weight: 700;
}
svg {
  width: 100%;
  border: 1px solid var(--hairline);
}
p {
  margin: 2px 0 0;
}
text {
  font-size: 14px;
  fill: var(--ink);
}
.quiet {
  fill: var(--quiet);
}
.plate {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.foot {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.plumb {
  stroke: var(--quiet);
  stroke-dasharray: 3 4;
}
.post {
  stroke: var(--action);
  stroke-width: 9;
  stroke-opacity: 0.75;
}
.unknown {
  stroke: var(--quiet);
  stroke-width: 9;
  stroke-dasharray: 2 6;
}
</style>
