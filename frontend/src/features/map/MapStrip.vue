<script setup lang="ts">
/** Where there is no room for the instrument: its parts in a row, from the pegs to the body. */
import { nextTick, onMounted, ref, watch } from 'vue'
import type { InstrumentView, PartView } from '@/api'
import { routeOfPart, SHORT, type PartName } from './parts'
import StateMark from './StateMark.vue'
import { t } from '@/words/map'

const props = defineProps<{ instrument: InstrumentView; parts: PartView[]; here: PartName | '' }>()
const strip = ref<HTMLElement | null>(null)
/** The part that is open stands in sight. */
function showHere(): void {
  const link = strip.value?.querySelector<HTMLElement>('[aria-current]')
  if (strip.value && link) strip.value.scrollLeft = link.offsetLeft - (strip.value.clientWidth - link.offsetWidth) / 2
}
onMounted(showHere)
watch(() => props.here, () => void nextTick(showHere))
</script>

<template>
  <nav ref="strip" class="strip" :aria-label="t('parts_of_the_instrument')">
    <router-link
      v-for="part in parts"
      :key="part.part"
      :to="routeOfPart(instrument.ticket, part.part, instrument.family)"
      class="part"
      :class="{ current: part.part === here }"
      :aria-current="part.part === here ? 'page' : undefined"
      :aria-label="t('text', { part: SHORT[part.part] ?? part.label, says: part.says })"
    >
      <svg viewBox="-9 -9 20 20" width="18" height="18" aria-hidden="true"><StateMark :state="part.state" :done="part.done" /></svg>
      {{ SHORT[part.part] ?? part.label }}
    </router-link>
  </nav>
</template>

<style scoped>
.strip {
  position: relative;
  display: flex;
  overflow-x: auto;
  scrollbar-width: thin;
  background: var(--sheet);
  border-radius: var(--corner);
}
.part {
  flex: none;
  display: flex;
  align-items: center;
  gap: 5px;
  min-height: var(--main-button);
  padding: 0 11px;
  font-weight: 700;
  color: var(--ink);
  text-decoration: none;
}
.current {
  color: var(--on-chosen);
  background: var(--chosen);
  --mark-above: var(--on-chosen);
  --mark-below: var(--on-chosen);
  --mark-on: var(--chosen);
}
</style>
