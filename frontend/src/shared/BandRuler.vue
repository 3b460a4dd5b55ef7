<script setup lang="ts">
/** A band as a ruler with a notch at the aim; the value hangs from it, below, in band or above. */
import { computed } from 'vue'
import { mm, plain } from './format'
import { t } from '@/words/shared'

const props = defineProps<{
  low: number
  aim: number
  high: number
  value: number | null
  side: 'below' | 'in_band' | 'above' | null
  outsideBy: number
}>()

const span = computed(() => Math.max(props.high - props.low, 0.01))
function at(value: number): number {
  const share = (value - props.low) / span.value
  return 24 + Math.min(1.36, Math.max(-0.36, share)) * 52
}
const where = computed(() => {
  if (props.side === null) return ''
  return props.side === 'in_band' ? t('in_band') : t('by', { side: props.side, mm: mm(Math.abs(props.outsideBy)) })
})
</script>

<template>
  <span class="ruler" :class="side">
    <svg viewBox="0 0 100 26" width="150" height="39" aria-hidden="true">
      <line x1="2" y1="14" x2="98" y2="14" class="line" />
      <rect :x="at(low)" y="11" :width="at(high) - at(low)" height="6" class="band" />
      <path :d="`M${at(aim)} 17 l-3 6 h6 z`" class="notch" />
      <path v-if="value !== null" :d="`M${at(value)} 12 l-4 -9 h8 z`" class="value" />
    </svg>
    <span class="words">
      {{ plain(low) }} – <b>{{ plain(aim) }}</b> – {{ plain(high) }}<template v-if="where">: {{ where }}</template>
    </span>
  </span>
</template>

<style scoped>
.ruler {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  white-space: nowrap;
}
@media (max-width: 640px) {
  .ruler {
    max-width: 100%;
    white-space: normal;
  }
  .ruler svg {
    flex: none;
    width: 104px;
    height: 27px;
  }
}
.line {
  stroke: var(--hairline);
  stroke-width: 1.5;
}
.band {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.2;
}
.notch {
  fill: var(--ink);
}
.value {
  fill: var(--ink);
}
.below .value {
  fill: var(--below);
}
.above .value {
  fill: var(--above);
}
</style>
