<script setup lang="ts">
/** The estimate for the owner, in plain words: what is wrong, what is done and why, what it takes, and what it comes to. */
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBench } from '@/features/bench'
import { useCommands } from '@/shared/commands'
import { usePlan } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const { plan, failure } = usePlan(() => props.ticket)
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const whole = computed(() => plan.value?.variants.at(-1) ?? null)
const instrument = computed(() => bench.sheet?.instrument ?? null)
const print = () => window.print()
const back = () => void router.push({ name: 'plan', params: { ticket: props.ticket } })
const pdf = computed(() => `/api/instruments/${encodeURIComponent(props.ticket)}/estimate.pdf`)
useCommands([
  { letter: 'd', own: true, words: t('print_it'), run: print },
  { letter: 'e', own: true, words: t('back_to_the_plan'), run: back },
])
</script>

<template>
  <p v-if="failure && !plan" role="alert">{{ failure }}</p>
  <main v-else-if="plan && whole && instrument" class="paper" :aria-label="t('estimate')">
    <div class="only-screen acts">
      <v-btn @click="back">{{ t('back_to_the_plan_2') }}</v-btn>
      <v-btn @click="print">{{ t('print') }}</v-btn>
      <v-btn :href="pdf" variant="flat">{{ t('save_as_pdf') }}</v-btn>
    </div>
    <h1>{{ t('estimate_for', { ticket }) }}</h1>
    <p>{{ instrument.family }} {{ instrument.size }}<template v-if="instrument.owner">, {{ instrument.owner }}</template></p>
    <table>
      <thead><tr><th>{{ t('what_is_done_and_why') }}</th><th class="right">{{ t('minutes') }}</th><th class="right">{{ t('amount') }}</th></tr></thead>
      <tbody v-for="line in plan.lines" :key="line.id">
        <tr class="work">
          <td><b>{{ line.label }}</b><span>{{ line.because }}</span><span v-if="line.why">{{ line.why }}</span><span v-if="line.risk">{{ t('it_may_grow') }} {{ line.risk }}.</span></td>
          <td class="right">{{ line.took || line.minutes }}</td>
          <td class="right"><b>{{ line.amount }}</b></td>
        </tr>
        <tr v-for="step in line.steps.filter((one) => !one.left_out)" :key="step.label" class="step">
          <td>{{ step.label }}<span v-if="step.why">{{ step.why }}</span></td><td class="right">{{ step.minutes }}</td><td />
        </tr>
        <tr v-for="part in line.parts" :key="part.id" class="step"><td>{{ part.says }}</td><td /><td /></tr>
      </tbody>
    </table>
    <table class="sums">
      <thead><tr><th>{{ t('variant') }}</th><th class="right">{{ t('works_and_parts') }}</th><th class="right">{{ t('tax', { tax: plan.tax }) }}</th><th class="right">{{ t('in_all') }}</th><th class="right">{{ t('it_may_be') }}</th></tr></thead>
      <tbody>
        <tr v-for="one in plan.variants" :key="one.grade">
          <td>{{ one.label }}</td><td class="right">{{ one.usual.net }}</td><td class="right">{{ one.usual.tax }}</td><td class="right"><b>{{ one.usual.total }}</b></td>
          <td class="right">{{ t('to', { low: one.low.total, high: one.high.total }) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="whole.against">{{ whole.against }}</p>
    <p>{{ t('of_it_beforehand_nothing_is', { deposit: whole.deposit }) }}</p>
    <p v-for="one in plan.approvals" :key="one.id">{{ one.says }}</p>
    <p class="sign">{{ t('agreed_day_and_name') }}</p>
  </main>
</template>

<style scoped>
.paper {
  max-width: 820px;
  margin: 0 auto;
  padding: 20px 28px 80px;
  background: var(--sheet);
}
.acts {
  display: flex;
  gap: var(--space-2);
}
h1 {
  font-size: var(--type-reading);
  margin: var(--space-4) 0 0;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: var(--space-4);
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--quiet);
}
td {
  padding: 4px 8px 4px 0;
  vertical-align: top;
}
td span {
  display: block;
  color: var(--quiet);
}
.work td {
  border-top: 1px solid var(--ink);
}
.step td:first-child {
  padding-left: 20px;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.sums tr td {
  border-top: 1px solid var(--hairline);
}
.sign {
  margin-top: 60px;
  border-top: 1px solid var(--ink);
  max-width: 360px;
}
</style>
