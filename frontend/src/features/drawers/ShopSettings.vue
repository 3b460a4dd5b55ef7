<script setup lang="ts">
/** What the shop sets for itself: rates, tax and limits, each with who set it and what it was before. */
import { onMounted, ref } from 'vue'
import { answerOf, api, Refused, type ShopSetting } from '@/api'
import { ago } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/drawers'

const atBench = useAtBench()
const settings = ref<ShopSetting[]>([])
const typed = ref<Record<string, string>>({})
const faults = ref<Record<string, string>>({})
const failure = ref('')
const said = ref('')

const without = (of: Record<string, string>, name: string) => Object.fromEntries(Object.entries(of).filter(([key]) => key !== name))
function take(found: ShopSetting[]): void {
  settings.value = found
  typed.value = Object.fromEntries(found.map((one) => [one.setting, typed.value[one.setting] ?? one.value]))
}
onMounted(async () => {
  try {
    take(await answerOf(api.GET('/api/settings')))
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  }
})
async function save(row: ShopSetting): Promise<void> {
  faults.value = without(faults.value, row.setting)
  said.value = ''
  try {
    const found = await answerOf(api.PUT('/api/settings/{setting}', { params: { path: { setting: row.setting } }, body: { id: freshId(), value: typed.value[row.setting] ?? '' } }))
    typed.value = without(typed.value, row.setting)
    take(found)
    said.value = t('is_saved', { setting: row.label })
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    faults.value[row.setting] = error.fields.value ?? error.message
  }
}
</script>

<template>
  <p v-if="failure" role="alert">{{ failure }}</p>
  <p v-if="said" role="status">{{ said }}</p>
  <ul :aria-label="t('rates_and_limits')">
    <li v-for="row in settings" :key="row.setting">
      <form @submit.prevent="save(row)">
        <label :for="`setting-${row.setting}`"><b>{{ row.label }}</b><span>{{ [row.says, row.is_own ? t('starting_value', { value: row.starting }) : t('starting_value_2')].filter(Boolean).join('; ') }}</span></label>
        <input :id="`setting-${row.setting}`" v-model="typed[row.setting]" autocomplete="off" :readonly="!atBench.may('figures')" :aria-invalid="row.setting in faults" />
        <span class="unit">{{ row.unit }}</span>
        <v-btn v-if="atBench.may('figures')" type="submit" size="small" :disabled="typed[row.setting] === row.value">{{ t('save') }}</v-btn>
      </form>
      <p v-if="row.setting in faults" class="fault" role="alert">{{ faults[row.setting] }}</p>
      <p v-if="row.history.length" class="history">{{ row.history.map((line) => t('by', { value: line.value, by: line.entered_by, when: line.entered_at ? ago(line.entered_at) : '' })).join('; ') }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  max-width: 760px;
}
li {
  border-top: 1px solid var(--hairline);
  padding: 4px 0;
}
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px 110px 90px;
  align-items: center;
  gap: var(--space-3);
  min-height: 52px;
}
label span,
.history,
.unit {
  color: var(--quiet);
}
label span {
  display: block;
  font-size: var(--type-note);
}
input {
  min-height: var(--hit);
  padding: 0 8px;
  font: inherit;
  font-size: var(--type-label);
  font-weight: 700;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
p {
  margin: 0;
}
.history {
  font-size: var(--type-note);
}
@media (max-width: 640px) {
  form {
    grid-template-columns: minmax(0, 1fr) 90px auto;
  }
  .unit {
    display: none;
  }
}
</style>
