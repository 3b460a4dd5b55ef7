<script setup lang="ts">
/** Side and Plan, drawn from what the server works out; asked for again whenever the sheet has moved. */
import { ref, watch } from 'vue'
import { answerOf, api, Refused, type BenchSheet, type Views } from '@/api'
import PlanView from './PlanView.vue'
import SideView from './SideView.vue'
import { t } from '@/words/drawing'

const props = defineProps<{ view: 'side' | 'plan'; sheet: BenchSheet; width: number; height: number }>()

const views = ref<Views | null>(null)
const failure = ref('')
let asked = 0

watch(
  () => props.sheet,
  async (sheet) => {
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/views', { params: { path: { ticket: sheet.instrument.ticket } } }))
      if (mine === asked) views.value = found
      failure.value = ''
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="failure && !views" class="absent" role="alert">{{ failure }}</p>
  <p v-else-if="views && (views.side.string_length.value === null || views.side.fingerboard_length.value === null)" class="absent">
    {{ t('it_is_drawn_once_the') }}
  </p>
  <SideView v-else-if="views && view === 'side'" :drawing="views.side" :width="width" :height="height" />
  <PlanView v-else-if="views" :drawing="views.plan" :width="width" :height="height" :left-handed="sheet.instrument.left_handed" />
</template>

<style scoped>
.absent {
  margin: 0;
  padding: 60px 24px;
  text-align: center;
  font-size: 18px;
}
</style>
