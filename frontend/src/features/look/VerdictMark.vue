<script setup lang="ts">
/** A verdict as a shape: full for fine, half to watch, crossed for work, a dash for not looked at, broken for blank. */
defineProps<{ verdict: string }>()
</script>

<template>
  <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true" :class="verdict || 'blank'">
    <circle cx="10" cy="10" r="7" />
    <path v-if="verdict === 'watch'" d="M10 3a7 7 0 0 1 0 14z" class="half" />
    <path v-if="verdict === 'work'" d="M6 6l8 8M14 6l-8 8" />
    <path v-if="verdict === 'not_looked_at'" d="M6 10h8" />
  </svg>
</template>

<style scoped>
svg {
  flex: none;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
}
.half {
  fill: currentColor;
}
.fine circle {
  fill: currentColor;
}
.blank circle {
  stroke-dasharray: 2.4 2;
}
</style>
