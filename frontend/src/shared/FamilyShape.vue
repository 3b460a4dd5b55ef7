<script setup lang="ts">
/** A family's silhouette, drawn for this program: body, neck and, for the low ones, the endpin. */
import { computed } from 'vue'

const props = defineProps<{ family: string }>()

const body = computed(
  () =>
    ({
      violin: 'M12 12.5 C8.6 12 7 14 7.2 16.4 C7.4 18 8.4 18.6 9.2 19 C9.6 20.4 9.6 21.4 9 22.8 C7.6 23.2 6.4 24.4 6.4 27 C6.4 30 8.8 31.5 12 31.5 C15.2 31.5 17.6 30 17.6 27 C17.6 24.4 16.4 23.2 15 22.8 C14.4 21.4 14.4 20.4 14.8 19 C15.6 18.6 16.6 18 16.8 16.4 C17 14 15.4 12 12 12.5 Z',
      viola: 'M12 11 C8 10.4 6 12.8 6.2 15.6 C6.4 17.4 7.6 18.2 8.6 18.6 C9 20.2 9 21.4 8.4 23 C6.6 23.4 5.2 25 5.2 28 C5.2 31.4 8 33 12 33 C16 33 18.8 31.4 18.8 28 C18.8 25 17.4 23.4 15.6 23 C15 21.4 15 20.2 15.4 18.6 C16.4 18.2 17.6 17.4 17.8 15.6 C18 12.8 16 10.4 12 11 Z',
      cello: 'M12 10 C7.4 9.4 5.2 11.8 5.4 14.8 C5.6 16.6 6.8 17.2 7.8 17.6 C8.3 19 8.3 20.2 7.6 21.6 C5.6 22 4.2 23.8 4.2 26.8 C4.2 30.2 7.4 31.6 12 31.6 C16.6 31.6 19.8 30.2 19.8 26.8 C19.8 23.8 18.4 22 16.4 21.6 C15.7 20.2 15.7 19 16.2 17.6 C17.2 17.2 18.4 16.6 18.6 14.8 C18.8 11.8 16.6 9.4 12 10 Z',
      bass: 'M12 8 C10.6 10 5.6 11 5.6 15 C5.6 17 6.8 17.8 7.6 18.2 C8.1 19.6 8 20.6 7.2 21.8 C5 22.4 3.6 24.4 3.6 27.2 C3.6 30.8 7 32 12 32 C17 32 20.4 30.8 20.4 27.2 C20.4 24.4 19 22.4 16.8 21.8 C16 20.6 15.9 19.6 16.4 18.2 C17.2 17.8 18.4 17 18.4 15 C18.4 11 13.4 10 12 8 Z',
    })[props.family] ?? '',
)
const hasEndpin = computed(() => props.family === 'cello' || props.family === 'bass')
</script>

<template>
  <svg viewBox="0 0 24 38" width="24" height="38" aria-hidden="true" class="shape">
    <path :d="body" />
    <line x1="12" y1="2" x2="12" y2="14" class="neck" />
    <line v-if="hasEndpin" x1="12" y1="31" x2="12" y2="37" />
  </svg>
</template>

<style scoped>
.shape {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
  flex: none;
}
.neck {
  stroke-width: 2.4;
}
</style>
