<script setup lang="ts">
/** A small sketch of where a reading is taken. What it shows is said beside it in words. */
import { computed } from 'vue'
import { sketchOf } from './sketches'

const props = defineProps<{ measure: string; position: number | null; leftHanded: boolean }>()
const sketch = computed(() => sketchOf(props.measure, props.position))
/** Seen from the tailpiece and from above a left-handed instrument has its bass side where the other has its treble. */
const mirrored = computed(() => {
  if (!props.leftHanded) return undefined
  if (sketch.value?.view === 'end' || sketch.value?.view === 'across') return 'translate(300 0) scale(-1 1)'
  return sketch.value?.view === 'plan' ? 'translate(0 180) scale(1 -1)' : undefined
})
const ends = computed(() => {
  if (!sketch.value) return []
  const { from, to } = sketch.value
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1
  const across = [((to[1] - from[1]) / length) * 5, (-(to[0] - from[0]) / length) * 5] as const
  return [from, to].map(([x, y]) => ({ x1: x - across[0], y1: y - across[1], x2: x + across[0], y2: y + across[1] }))
})
</script>

<template>
  <svg v-if="sketch" viewBox="0 0 300 180" aria-hidden="true">
    <g :transform="mirrored">
      <g v-if="sketch.view === 'side'" class="form">
        <path d="M122 134Q206 112 292 134V166H122Z" />
        <path d="M24 70L12 64M24 76L122 146M24 76V66L176 92V102L24 76" />
        <path class="thin" d="M176 92L216 99" stroke-dasharray="4 3" />
        <path d="M209 124L213 58H219L223 124" />
        <path class="thin" d="M24 60L216 58L258 92L272 108" />
        <path d="M258 92L276 112L270 116L254 98ZM282 134V128H290V134" />
      </g>
      <g v-else-if="sketch.view === 'end'" class="form">
        <path d="M20 164Q150 132 280 164" />
        <path d="M88 150L90 140Q112 136 118 92Q104 84 100 56Q150 26 200 56Q196 84 182 92Q188 136 210 140L212 150L178 146Q150 118 122 146Z" />
        <path d="M122 43V50M142 38V45M162 38V45M182 44V51" />
        <path d="M98 152V178H106V152M194 150V178H202V150" />
      </g>
      <g v-else-if="sketch.view === 'foot'" class="form">
        <path d="M40 154H270M40 164H270" />
        <path d="M124 152V144L138 34H156L164 144V152Z" />
        <path d="M178 164V180M198 164V180M178 154V150M198 154V150" />
      </g>
      <g v-else-if="sketch.view === 'across'" class="form">
        <path d="M70 92Q150 -4 230 92V104Q150 64 70 104Z" />
        <path class="thin" d="M70 92H230" stroke-dasharray="4 3" />
      </g>
      <g v-else class="form">
        <path d="M24 76V104L180 118V62Z" />
        <path class="thin" d="M24 80L216 70M24 87L216 83M24 93L216 97M24 100L216 110M180 118L216 121M180 62L216 59" />
        <path d="M212 56V124M220 56V124" />
        <path d="M190 32Q216 36 216 34Q216 32 246 26M190 148Q216 144 216 146Q216 148 246 154" />
      </g>
      <g class="measure">
        <line :x1="sketch.from[0]" :y1="sketch.from[1]" :x2="sketch.to[0]" :y2="sketch.to[1]" />
        <line v-for="(end, i) in ends" :key="i" v-bind="end" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 190px;
}
.form {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.6;
  stroke-linejoin: round;
}
.thin {
  stroke-width: 1;
}
.measure {
  stroke: var(--action);
  stroke-width: 3;
  stroke-linecap: round;
}
</style>
