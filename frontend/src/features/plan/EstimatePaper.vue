<script setup lang="ts">
/** The estimate for the owner, word for word as on its PDF: what is wrong, what is done and why, and what it comes to. */
import { useRouter } from 'vue-router'
import { answerOf, api } from '@/api'
import { useCommands } from '@/shared/commands'
import { useLoaded } from '@/shared/loaded'
import EstimateFigure from './EstimateFigure.vue'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const { found: paper, failure } = useLoaded(() => props.ticket, (ticket) => answerOf(api.GET('/api/instruments/{ticket}/estimate', { params: { path: { ticket } } })))
const print = () => window.print()
const back = () => void router.push({ name: 'plan', params: { ticket: props.ticket } })
useCommands([
  { letter: 'd', own: true, words: t('print_it'), run: print },
  { letter: 'e', own: true, words: t('back_to_the_plan'), run: back },
])
</script>

<template>
  <main class="paper" :aria-label="t('estimate')">
    <div class="only-screen acts">
      <v-btn @click="back">{{ t('back_to_the_plan_2') }}</v-btn>
      <v-btn v-if="paper" @click="print">{{ t('print') }}</v-btn>
      <v-btn v-if="paper" :href="`/api/instruments/${encodeURIComponent(ticket)}/estimate.pdf`" target="_blank" variant="flat">{{ t('open_as_pdf') }}</v-btn>
    </div>
    <p v-if="failure" role="alert">{{ failure }}</p>
    <template v-if="paper">
      <h1>{{ paper.title }}</h1>
      <p v-for="line in paper.subject" :key="line">{{ line }}</p>
      <EstimateFigure v-for="figure in paper.figures" :key="figure.title" :figure="figure" />
      <table>
        <thead><tr><th v-for="(head, i) in paper.heads" :key="head" :class="{ right: i > 0 }">{{ head }}</th></tr></thead>
        <tbody v-for="row in paper.rows" :key="row.label">
          <tr class="work">
            <td><b>{{ row.label }}</b><span v-for="line in row.detail" :key="line">{{ line }}</span></td>
            <td class="right">{{ row.minutes }}</td>
            <td class="right"><b>{{ row.amount }}</b></td>
          </tr>
          <tr v-for="step in row.steps" :key="step.label" class="step"><td>{{ step.label }}</td><td class="right">{{ step.minutes }}</td><td /></tr>
        </tbody>
      </table>
      <table class="sums">
        <thead><tr><th v-for="(head, i) in paper.sum_heads" :key="head" :class="{ right: i > 0 }">{{ head }}</th></tr></thead>
        <tbody>
          <tr v-for="(row, r) in paper.sums" :key="r"><td v-for="(cell, i) in row" :key="i" :class="{ right: i > 0, total: i === 3 }">{{ cell }}</td></tr>
        </tbody>
      </table>
      <p v-for="note in paper.notes" :key="note">{{ note }}</p>
      <p class="sign">{{ paper.sign }}</p>
    </template>
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
  flex-wrap: wrap;
  gap: var(--space-2);
}
h1 {
  font-size: var(--type-reading);
  margin: var(--space-4) 0 0;
}
p {
  margin: var(--space-1) 0;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: var(--space-4) 0;
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
}
.total {
  font-weight: 700;
}
.sums tr td {
  border-top: 1px solid var(--hairline);
}
.sign {
  margin-top: 60px;
  border-top: 1px solid var(--ink);
  max-width: 360px;
}
@media (max-width: 640px) {
  .paper {
    padding: 12px 12px 80px;
  }
}
</style>
