<script setup lang="ts">
/** Every target in numbers with its band or its ±; a line opens to where it comes from. */
import { computed, ref } from 'vue'
import type { TargetLine } from '@/api'
import { mm, plain, up } from '@/shared/format'

const props = defineProps<{ lines: TargetLine[] }>()

/** The line whose source is shown. */
const opened = ref('')
/** What is wanted, not what is to be done: places across the bridge and cuts stand on the sheet. */
const shown = computed(() => props.lines.filter((line) => !/^(place|wood):/.test(line.key)))

function bandOf(line: TargetLine): string {
  if (line.plus_minus !== null && line.plus_minus >= 0.005) return `±${up(line.plus_minus, 2)}`
  return line.low !== null && line.high !== null ? `${plain(line.low)} – ${plain(line.high)}` : ''
}
</script>

<template>
  <ul class="lines">
    <li v-for="line in shown" :key="line.key">
      <button type="button" class="plain-button line" :aria-expanded="opened === line.key" @click="opened = opened === line.key ? '' : line.key">
        <span class="label">{{ line.label }}</span>
        <span v-if="line.aim === null" class="band">{{ line.source }}</span>
        <template v-else>
          <span class="band">{{ bandOf(line) }}</span>
          <b>{{ line.unit === 'mm' ? mm(line.aim) : plain(line.aim) }}</b>
        </template>
      </button>
      <p v-if="opened === line.key && line.aim !== null" class="from">{{ line.source }}</p>
    </li>
  </ul>
</template>

<style scoped>
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: var(--type-text);
}
.line {
  display: flex;
  align-items: baseline;
  gap: 10px;
  width: 100%;
  min-height: var(--hit);
  padding: 10px 0 0;
  border-top: 1px solid var(--hairline);
}
.label {
  flex: 1;
  line-height: 1.15;
}
.line b {
  font-size: var(--type-label);
  min-width: var(--hit);
  text-align: right;
}
.band {
  color: var(--quiet);
  font-size: var(--type-map);
  text-align: right;
}
.from {
  margin: 0 0 8px;
  padding: 4px 10px;
  background: var(--note);
  border-left: 3px solid var(--action);
}
</style>
