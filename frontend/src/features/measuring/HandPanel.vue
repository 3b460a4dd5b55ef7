<script setup lang="ts">
/** What is in hand: where and how it is taken, with what, how it slips, and what the readings say together. */
import { computed } from 'vue'
import type { BenchSheet, Cell } from '@/api'
import { MeasureSketch } from '@/features/drawing'
import { useHouse } from '@/features/rail'
import { useAtBench } from '@/shared/person'
import DeviceSends from './DeviceSends.vue'
import { t } from '@/words/measuring'

const props = defineProps<{ sheet: BenchSheet; cell: Cell; isWhyOpen: boolean; whyLines: string[] }>()
const emit = defineEmits<{ sent: [typed: string, tool: string, simulated: boolean] }>()
const atBench = useAtBench()
const house = useHouse()

const tools = computed(() =>
  props.cell.tools.map((tool) => ({ tool, label: house.choices?.tools.find((one) => one.tool === tool)?.label ?? tool })),
)
const words = computed(() => house.choices?.measures.find((one) => one.measure === props.cell.measure) ?? null)
const inHand = computed({
  get: () => atBench.toolFor(props.cell.measure, props.cell.tools),
  set: (tool) => atBench.chooseTool(props.cell.measure, tool),
})
/** A spacing is found out from several measures of one place. */
const about = computed(() => {
  const where = /^(?:string_(?:mark|centres|gap)_)?(nut|bridge)(?:_spread|_margin)?$/.exec(props.cell.measure)?.[1]
  return where ? `spacing_${where}` : props.cell.measure
})
const findings = computed(() => props.sheet.findings.filter((found) => found.of === about.value))
</script>

<template>
  <div class="hand" role="group" :aria-label="t('in_hand')">
    <MeasureSketch :measure="cell.measure" :position="cell.position" :left-handed="sheet.instrument.left_handed" />
    <h2 class="title">{{ cell.name }}</h2>
    <p v-if="words">{{ words.how.charAt(0).toUpperCase() }}{{ words.how.slice(1) }}.</p>
    <p v-if="words?.slip"><b>{{ t('the_usual_slip') }}</b> {{ words.slip }}.</p>
    <label v-if="tools.length > 1" class="tool">
      {{ t('read_with') }}
      <select v-model="inHand">
        <option v-for="one in tools" :key="one.tool" :value="one.tool">{{ one.label }}</option>
      </select>
    </label>
    <p v-else class="tool">{{ t('read_with_a', { label: tools[0]?.label }) }}</p>
    <p v-for="found in findings" :key="found.says" class="found">{{ found.says }}</p>
    <p v-for="line in isWhyOpen ? whyLines : []" :key="line" class="quiet">{{ line }}</p>
    <p v-if="cell.told !== null">{{ t('derived_from_a_reading_taken', { told_by: cell.told_by }) }}</p>
    <DeviceSends v-if="atBench.may('measure') && house.choices?.has_devices" :ticket="sheet.instrument.ticket" :cell="cell" @sent="(typed, tool, simulated) => emit('sent', typed, tool, simulated)" />
  </div>
</template>

<style scoped>
.title {
  margin: 8px 0 0;
  font-size: var(--type-title);
  line-height: 1.15;
}
.title::first-letter {
  text-transform: uppercase;
}
.hand p {
  margin: 8px 0 0;
}
.tool {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: var(--hit);
}
select {
  flex: 1;
  min-height: var(--hit);
  padding: 0 8px;
  font: inherit;
  font-weight: 700;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.found {
  padding-left: 10px;
  border-left: 3px solid var(--ink);
}
.quiet {
  color: var(--quiet);
}
@media (max-width: 1000px) {
  .hand :deep(svg) {
    max-height: 130px;
  }
}
</style>
