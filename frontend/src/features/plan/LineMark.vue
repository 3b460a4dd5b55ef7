<script setup lang="ts">
/** Where a planned work stands, as a shape: an open ring, a running hand, a pause, a tick; barred while it waits. */
defineProps<{ state: string; stopped: boolean }>()
</script>

<template>
  <svg viewBox="-12 -12 24 24" width="24" height="24" aria-hidden="true">
    <path v-if="state === 'done'" d="M-8 0l5 6L9 -7" class="tick" />
    <path v-else-if="state === 'running'" d="M-6 -8L8 0L-6 8Z" class="full" />
    <path v-else-if="state === 'paused'" d="M-5 -7v14M5 -7v14" class="tick" />
    <template v-else>
      <circle r="7" class="ring" />
      <line v-if="stopped" x1="-5" y1="5" x2="5" y2="-5" class="ring" />
    </template>
  </svg>
</template>

<style scoped>
.tick {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.full {
  fill: var(--ink);
}
.ring {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
