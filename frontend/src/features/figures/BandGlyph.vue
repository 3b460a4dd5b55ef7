<script setup lang="ts">
/** A figure as a short ruler: its band from low to high with a notch at the aim; a floor or a ceiling is open at one end. */
import { computed } from 'vue'
import type { FigureRow } from '@/api'

const props = defineProps<{ row: FigureRow }>()
const LOW = 8
const HIGH = 64
const aim = computed(() => {
  const { low, aim: at, high } = props.row
  if (low === null || high === null || at === null || high <= low) return null
  return LOW + ((at - low) / (high - low)) * (HIGH - LOW)
})
</script>

<template>
  <svg viewBox="0 0 72 20" width="72" height="20" aria-hidden="true">
    <template v-if="row.shape === 'band' && aim !== null">
      <line :x1="LOW" :x2="HIGH" y1="8" y2="8" class="band" />
      <path :d="`M${LOW} 3v10M${HIGH} 3v10`" class="end" />
      <path :d="`M${aim} 11l-4 7h8z`" class="notch" />
    </template>
    <path v-else-if="row.shape === 'floor' && row.low !== null" :d="`M${LOW} 3v10M${LOW} 8H${HIGH}l-6 -4m6 4l-6 4`" class="end" />
    <path v-else-if="row.shape === 'ceiling' && row.high !== null" :d="`M${HIGH} 3v10M${HIGH} 8H${LOW}l6 -4m-6 4l6 4`" class="end" />
  </svg>
</template>

<style scoped>
.band {
  stroke: var(--ink);
  stroke-width: 3;
}
.end {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.notch {
  fill: var(--ink);
}
</style>
