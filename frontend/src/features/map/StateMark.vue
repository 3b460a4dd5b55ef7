<script setup lang="ts">
/** The state of a part as a shape, drawn in a square of 14 around its middle; the word stands beside it. */
import type { PartView } from '@/api'

defineProps<{ state: PartView['state']; done?: boolean }>()
</script>

<template>
  <g class="mark" :class="state">
    <rect v-if="state === 'in_order'" x="-6" y="-6" width="12" height="12" class="full" />
    <rect v-else-if="state === 'left'" x="-5.25" y="-5.25" width="10.5" height="10.5" />
    <rect v-else-if="state === 'stale'" x="-5.25" y="-5.25" width="10.5" height="10.5" class="dashed" />
    <path v-else-if="state === 'above'" d="M0 -7 L7 6 L-7 6 Z" class="full" />
    <path v-else-if="state === 'below'" d="M0 7 L7 -6 L-7 -6 Z" class="full" />
    <circle v-else-if="state === 'assumed'" r="4.5" />
    <circle v-else-if="state === 'unknown'" r="5.5" class="dotted" />
    <g v-else-if="state === 'work'">
      <circle r="6" />
      <path d="M-4 -4 L4 4 M4 -4 L-4 4" />
    </g>
    <path v-else-if="state === 'doubted'" d="M0 -7 L7 0 L0 7 L-7 0 Z" />
    <circle v-else r="6.5" class="full" />
    <text v-if="state === 'doubted'" y="4" class="asks">?</text>
    <text v-if="state === 'decide'" y="4.2" class="asks on">?</text>
    <path v-if="done" d="M3 7 L6 10 L11 3" transform="translate(0.5 -1)" class="tick" />
  </g>
</template>

<style scoped>
.mark {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.6;
}
.full {
  fill: currentColor;
  stroke: none;
}
.above .full {
  fill: var(--mark-above, var(--above));
}
.below .full {
  fill: var(--mark-below, var(--below));
}
.dashed {
  stroke-dasharray: 3 2;
}
.dotted {
  stroke-dasharray: 1.6 2.2;
}
.asks {
  fill: currentColor;
  stroke: none;
  font-size: 11px;
  font-weight: 700;
  text-anchor: middle;
}
.asks.on {
  fill: var(--mark-on, var(--sheet));
}
.tick {
  stroke-width: 2;
}
</style>
