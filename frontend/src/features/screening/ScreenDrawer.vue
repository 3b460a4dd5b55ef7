<script setup lang="ts">
/** What can be found at one item of one instrument, opened under its row. */
import { nextTick, onMounted, ref } from 'vue'
import type { ScreenCell } from '@/api'
import { VERDICTS } from '@/features/look'
import { t } from '@/words/screening'

const props = defineProps<{ cell: ScreenCell; title: string; look: string; verdict: string }>()
const emit = defineEmits<{ keep: [said: { verdict: string; findings: string[]; words: string }]; leave: [] }>()

const verdict = ref(props.verdict || props.cell.verdict)
const findings = ref([...props.cell.findings])
const words = ref(props.cell.words)
const fault = ref('')
const form = ref<HTMLFormElement | null>(null)

onMounted(() => {
  void nextTick(() => {
    const radio = form.value?.querySelector<HTMLInputElement>('input[type="radio"]:checked') ?? form.value?.querySelector<HTMLInputElement>('input')
    const at = props.verdict === 'not_looked_at' ? form.value?.querySelector<HTMLInputElement>('.words input') : radio
    at?.focus()
    form.value?.scrollIntoView({ block: 'nearest' })
  })
})
/** What the findings ask for is said by the server, unless a verdict is chosen after them. */
function found(finding: string): void {
  const there = findings.value
  findings.value = there.includes(finding) ? there.filter((one) => one !== finding) : [...there, finding]
  verdict.value = ''
}
function keep(): void {
  if (verdict.value === '' && !findings.value.length) fault.value = t('choose_fine_watch_or_work')
  else if (verdict.value === 'not_looked_at' && !words.value.trim()) fault.value = t('enter_the_reason_why_it')
  else emit('keep', { verdict: verdict.value, findings: findings.value, words: words.value })
}
</script>

<template>
  <form ref="form" :aria-label="title" @submit.prevent="keep" @keydown.esc.stop.prevent="emit('leave')">
    <p><b>{{ title }}</b> {{ look }}</p>
    <fieldset>
      <legend class="only-read">{{ t('what_it_is') }}</legend>
      <label v-for="row in VERDICTS" :key="row.value">
        <input v-model="verdict" type="radio" name="screened" :value="row.value" @keydown.enter.prevent="keep" />{{ row.label }}
      </label>
    </fieldset>
    <fieldset v-if="cell.offered.length">
      <legend class="only-read">{{ t('what_is_found') }}</legend>
      <label v-for="row in cell.offered" :key="row.finding">
        <input type="checkbox" :checked="findings.includes(row.finding)" @change="found(row.finding)" @keydown.enter.prevent="keep" />{{ row.label }}
      </label>
    </fieldset>
    <div class="acts">
      <label class="words">{{ verdict === 'not_looked_at' ? t('reason_it_was_not_inspected') : t('notes') }}<input v-model="words" type="text" maxlength="20000" /></label>
      <v-btn type="submit" variant="flat">{{ t('save_next_cell') }}</v-btn>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </form>
</template>

<style scoped>
form {
  padding: 8px 16px 14px 40px;
  border-left: 6px solid var(--action);
}
p {
  margin: 0;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 0 26px;
  margin: 0;
  padding: 0;
  border: 0;
}
label {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: var(--hit);
}
fieldset input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.words {
  flex: 1;
  min-width: 240px;
}
.words input {
  flex: 1;
  min-height: var(--hit);
  padding: 2px 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
@media (max-width: 640px) {
  form {
    padding: 8px 12px 14px;
  }
}
</style>
