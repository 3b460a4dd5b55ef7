<script setup lang="ts">
/** One handle: pulled along, or typed with either decimal mark; or one of several that is chosen. */
import { computed, ref, watch } from 'vue'
import type { PageHandle } from '@/api'
import { plain } from '@/shared/format'
import { t } from '@/words/pages'

/** at : where it was pulled to, which may be ahead of what the server has answered. */
const props = defineProps<{ handle: PageHandle; at: number; fault: string }>()
const emit = defineEmits<{ moved: [value: number | string] }>()

const places = computed(() => (props.handle.step < 0.1 ? 2 : props.handle.step < 1 ? 1 : 0))
const shown = (value: number) => value.toFixed(places.value).replace('-', '−')
const typed = ref(shown(props.at))
const isTyping = ref(false)
const misread = ref('')
watch(() => props.at, (at) => {
  if (!isTyping.value) typed.value = shown(at)
})
const isMoved = computed(() => Math.abs(props.at - props.handle.rests_at) > 1e-9)

function take(): void {
  isTyping.value = false
  const value = Number(typed.value.trim().replace(',', '.').replace('−', '-'))
  misread.value = typed.value.trim() === '' || Number.isNaN(value) ? t('is_no_figure_type_digits', { typed: typed.value, shown: shown(props.handle.rests_at) }) : ''
  if (!misread.value && Math.abs(value - props.at) > 1e-9) emit('moved', value)
}
</script>

<template>
  <div class="handle" :class="{ moved: isMoved }">
    <template v-if="handle.choices?.length">
      <label :for="`h-${handle.name}`">{{ handle.label }}</label>
      <select :id="`h-${handle.name}`" :value="handle.chosen" @change="emit('moved', ($event.target as HTMLSelectElement).value)">
        <option v-for="choice in handle.choices" :key="choice.key" :value="choice.key">{{ choice.label }}</option>
      </select>
    </template>
    <template v-else>
      <label :for="`h-${handle.name}`">{{ handle.label }}</label>
      <span class="value">
        <input v-model="typed" type="text" inputmode="decimal" autocomplete="off" :aria-label="t('typed', { handle: handle.label })" @focus="isTyping = true" @keydown.enter="take" @blur="take" />
        {{ handle.unit }}
      </span>
      <input
        :id="`h-${handle.name}`"
        class="slide"
        type="range"
        :min="handle.low"
        :max="handle.high"
        :step="handle.step"
        :value="at"
        :aria-valuetext="`${shown(at)} ${handle.unit}`"
        @input="emit('moved', Number(($event.target as HTMLInputElement).value))"
      />
      <span class="rest">
        <template v-if="isMoved">{{ t('rests_at', { plain: plain(handle.rests_at) }) }}</template><template v-if="isMoved && handle.rests_on">: </template>{{ handle.rests_on }}
      </span>
    </template>
    <p v-if="misread || fault" class="fault" role="alert">{{ misread || fault }}</p>
  </div>
</template>

<style scoped>
.handle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  align-items: center;
  padding: 6px 0 4px;
  border-top: 1px solid var(--hairline);
}
label {
  line-height: 1.2;
}
.moved label {
  font-weight: 700;
}
.value {
  white-space: nowrap;
}
.value input {
  width: 78px;
  height: 40px;
  padding: 0 8px;
  text-align: right;
  font: inherit;
  font-size: var(--type-target);
  font-weight: 700;
  font-variant-numeric: tabular-nums;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.slide {
  grid-column: 1 / -1;
  width: 100%;
  height: 36px;
  margin: 0;
  accent-color: var(--action);
}
.slide:focus-visible {
  outline-offset: -6px;
}
.rest {
  grid-column: 1 / -1;
  font-size: var(--type-note);
  line-height: 1.25;
  color: var(--quiet);
}
select {
  grid-column: 1 / -1;
  min-height: var(--hit);
  width: 100%;
  padding: 0 8px;
  font: inherit;
  font-weight: 700;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.fault {
  grid-column: 1 / -1;
  margin: 2px 0;
}
</style>
