<script setup lang="ts">
/** The wood to take off, a big figure over each string of the drawing; hollow while it may not be taken. */
import { computed } from 'vue'
import type { BenchSheet } from '@/api'
import type { SheetGeometry } from '@/features/drawing'
import { mm } from '@/shared/format'

const props = defineProps<{ cut: BenchSheet['cut']; geometry: SheetGeometry; barred: boolean; narrow: boolean }>()
const emit = defineEmits<{ why: [name: string] }>()

const takeOff = computed(() =>
  props.cut.strings.map((s, i) => ({
    ...s,
    column: props.geometry.columns[i],
    side: s.wood === null ? '' : s.wood <= -0.05 ? 'below' : s.wood >= 0.05 ? 'above' : '',
  })),
)
</script>

<template>
  <div class="take-off" aria-label="Wood to take off at the bridge">
    <span v-if="!narrow" class="take-label"><b>{{ barred ? 'not yet to take off' : cut.state === 'provisional' ? 'take off, provisional' : 'take off' }}</b><br />mm of wood</span>
    <template v-for="(s, i) in takeOff" :key="s.name">
      <button
        v-if="s.wood !== null && s.column"
        type="button"
        class="plain-button wood"
        :class="[s.side, barred ? 'provisional' : s.state]"
        :style="{ left: `${s.column.left}px`, width: `${s.column.width}px` }"
        :aria-label="`${s.name}: ${s.state} ${s.wood < 0 ? 'short by' : 'take off'} ${mm(Math.abs(s.wood), 1)} mm, give or take ${mm(s.plus_minus ?? 0)}. Why?`"
        @click="emit('why', `wood:${i}`)"
      >
        <span class="number">{{ mm(Math.abs(s.wood), 1) }}</span>
        <span class="below-number">{{ s.side === 'below' ? 'short' : `±${mm(s.plus_minus ?? 0)}` }}</span>
      </button>
      <span v-else-if="s.column" class="wood none" :style="{ left: `${s.column.left}px`, width: `${s.column.width}px` }"><span class="number">–</span></span>
    </template>
  </div>
</template>

<style scoped>
.take-off {
  position: relative;
  height: 52px;
}
.take-label {
  position: absolute;
  left: 16px;
  top: 4px;
  line-height: 1.2;
  width: 118px;
}
.wood {
  position: absolute;
  top: 0;
  height: 54px;
  text-align: center;
  display: grid;
  align-content: start;
}
.number {
  font-size: 34px;
  font-weight: 700;
  line-height: 1;
}
.below-number {
  font-size: 14px;
  line-height: 1.2;
}
.wood.above .number {
  color: var(--above);
}
.wood.below .number {
  color: var(--below);
}
.wood.provisional .number {
  color: transparent;
  -webkit-text-stroke: 1.3px var(--ink);
}
.wood.provisional.above .number {
  -webkit-text-stroke-color: var(--above);
}
.wood.provisional.below .number {
  -webkit-text-stroke-color: var(--below);
}
.wood.none {
  color: var(--quiet);
}
</style>
