<script setup lang="ts">
/** The wood at each string over the drawing: big where it is to take now, small where it would only be to the aim. */
import { computed } from 'vue'
import type { BenchSheet } from '@/api'
import type { SheetGeometry } from '@/features/drawing'
import { down, mm, up } from '@/shared/format'

const props = defineProps<{ cut: BenchSheet['cut']; geometry: SheetGeometry; narrow: boolean }>()
const emit = defineEmits<{ why: [name: string] }>()

const NOTHING = 0.05
const LABELS = {
  none: '',
  due: 'take off',
  may: '',
  waits: 'do not cut yet',
  to_aim: 'in band; to the aim',
  not_chosen: 'not cut: decided otherwise',
} as const
const isProvisional = computed(() => props.cut.state === 'provisional')
const label = computed(() => {
  if (props.cut.role === 'may') return isProvisional.value ? 'provisional cut' : 'wood to take'
  return props.cut.role === 'due' && isProvisional.value ? 'take off, provisional' : LABELS[props.cut.role]
})
const strings = computed(() =>
  props.cut.strings.map((s, i) => ({
    ...s,
    column: props.geometry.columns[i],
    side: s.wood === null ? '' : s.wood <= -NOTHING ? 'below' : s.wood >= NOTHING ? 'above' : '',
    text: s.wood === null ? '–' : s.wood < 0 ? mm(-s.wood, 1) : down(s.wood, 1),
  })),
)
</script>

<template>
  <div class="take-off" :class="cut.role" aria-label="Wood to take off at the bridge">
    <span v-if="!narrow" class="take-label"><b>{{ label }}</b><br />mm of wood</span>
    <template v-for="(s, i) in strings" :key="s.name">
      <button
        v-if="s.wood !== null && s.column"
        type="button"
        class="plain-button wood"
        :class="s.side"
        :style="{ left: `${s.column.left}px`, width: `${s.column.width}px` }"
        :aria-label="`${s.name}: ${s.wood < 0 ? 'too low by' : label} ${s.text} mm, ±${up(s.uncertainty ?? 0, 1)}. Why?`"
        @click="emit('why', `wood:${i}`)"
      >
        <span class="number">{{ s.text }}</span>
        <span class="below-number">{{ s.side === 'below' ? 'too low' : `±${up(s.uncertainty ?? 0, 1)}` }}</span>
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
.due .number {
  color: var(--ink);
}
.may .number {
  font-weight: 400;
}
.waits .number,
.not_chosen .number,
.to_aim .number {
  padding-top: 8px;
  font-size: 20px;
  font-weight: 400;
  color: var(--quiet);
}
.not_chosen .number {
  text-decoration: line-through;
}
.wood.below .number {
  color: var(--below);
}
.wood.none {
  color: var(--quiet);
}
</style>
