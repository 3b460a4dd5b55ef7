<script setup lang="ts">
/** A page of its own beside the sheet's: a head, what is chosen from, and at the side what it says. */
defineProps<{
  sideLabel: string
  /** On a narrow screen the side stays in sight while the page is gone through. */
  stuck?: boolean
  /** On a narrow screen the side comes first. */
  sideFirst?: boolean
}>()
</script>

<template>
  <div class="page">
    <header class="head"><slot name="head" /></header>
    <slot />
    <aside v-if="$slots.side" class="side" :class="{ stuck, first: sideFirst }" :aria-label="sideLabel"><slot name="side" /></aside>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 8px 12px;
  padding: 6px 16px 64px;
  align-items: start;
}
.head {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 18px;
  min-height: var(--hit);
}
.head :slotted(h1) {
  font-size: var(--type-title);
  margin: 0;
}
.side {
  position: sticky;
  top: 8px;
  max-height: calc(100vh - 150px);
  overflow-y: auto;
  padding: 14px 18px 18px;
  background: var(--sheet);
  border-radius: var(--corner);
  font-size: var(--type-text);
  line-height: 1.35;
}
@media (max-width: 1000px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
    max-height: none;
  }
  .side.first {
    grid-row: 2;
  }
  .side.stuck {
    position: sticky;
    top: auto;
    bottom: 50px;
    max-height: 44vh;
    border-top: 2px solid var(--ink);
  }
}
@media (max-width: 640px) {
  .page {
    padding: 4px 8px 64px;
  }
}
</style>
