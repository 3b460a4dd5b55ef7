<script setup lang="ts">
/** An instrument over its visits: what changed since last time first, then its measures through the seasons. */
import { useElementSize } from '@vueuse/core'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, type HistoryChart } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { dayAndYear } from '@/shared/format'
import { useLoaded } from '@/shared/loaded'
import { usePageCommands } from '@/shared/pages'
import MeasureChart from './MeasureChart.vue'
import { timeScale } from './scale'
import VisitCard from './VisitCard.vue'
import { pictureOf } from '@/shared/pictures'
import { t } from '@/words/history'

const LogDialog = defineAsyncComponent(() => import('@/features/log').then((feature) => feature.LogDialog))
const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const chosen = ref('')
const logOpen = ref(false)
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const { found: history, failure } = useLoaded(
  () => props.ticket,
  (ticket) => answerOf(api.GET('/api/instruments/{ticket}/history', { params: { path: { ticket } } })),
  (found) => (chosen.value = found.visits[0]?.id ?? ''),
)
const { found: sealed } = useLoaded(() => props.ticket, (ticket) => answerOf(api.GET('/api/instruments/{ticket}/seals', { params: { path: { ticket } } })))
const seals = computed(() => sealed.value ?? [])
const visits = computed(() => history.value?.visits ?? [])
const visit = computed(() => visits.value.find((one) => one.id === chosen.value) ?? visits.value[0])
const time = computed(() => timeScale(visits.value))
const body = ref<HTMLElement | null>(null)
const { width } = useElementSize(body, { width: 640, height: 0 })
const CHART = 96
const SINGLE = 64
const NAMES = 168
const chartWidth = computed(() => Math.max(width.value - (width.value > 560 ? NAMES : 0), 200))
const air = computed((): HistoryChart | null =>
  history.value?.humidity.length
    ? { measure: 'humidity', label: t('humidity_of_the_room'), unit: '%', places: 0, lines: [{ name: '', points: history.value.humidity, low: null, high: null }] }
    : null,
)
/** What moved comes first, the projection before all: it goes with the air, which stands under it. */
const varies = (chart: HistoryChart) => chart.lines.some((line) => new Set(line.points.map((point) => point.value.toFixed(chart.places))).size > 1)
const moved = computed(() => {
  const all = (history.value?.charts ?? []).filter(varies)
  return [...all.filter((chart) => chart.measure === 'projection'), ...all.filter((chart) => chart.measure !== 'projection')]
})
const still = computed(() =>
  (history.value?.charts ?? [])
    .filter((chart) => !varies(chart))
    .map((chart) => `${chart.label} ${chart.lines.map((line) => `${line.name} ${(line.points.at(-1)?.value ?? 0).toFixed(chart.places)}`.trim()).join(', ')} ${chart.unit}`),
)
/** The same item through the visits, side by side, where it was photographed more than once. */
const pictures = computed(() => {
  const by = new Map<string, { label: string; all: { id: string; at: string; words: string }[] }>()
  for (const one of [...visits.value].reverse())
    for (const photo of one.photos) {
      const there = by.get(photo.item) ?? { label: photo.label, all: [] }
      there.all.push({ id: photo.id, at: photo.at, words: photo.words })
      by.set(photo.item, there)
    }
  return [...by.values()].filter((item) => item.all.length > 1)
})
function step(by: 1 | -1): void {
  const at = visits.value.findIndex((one) => one.id === chosen.value)
  chosen.value = visits.value[Math.min(Math.max(at + by, 0), visits.value.length - 1)]?.id ?? ''
}
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
  event.preventDefault()
  step(event.key === 'ArrowLeft' ? 1 : -1)
}
usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'e', words: t('bench_sheet_2'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'o', words: t('log_of_every_visit'), run: () => (logOpen.value = true) },
  { letter: 'a', own: true, words: t('the_visit_before'), run: () => step(1), possible: () => visits.value.length > 1 },
  { letter: 'd', own: true, words: t('the_visit_after'), run: () => step(-1), possible: () => visits.value.length > 1 },
])
</script>

<template>
  <p v-if="failure && !history" class="absent" role="alert">{{ failure }}</p>
  <InstrumentFrame v-else-if="history && bench.sheet" :ticket="ticket" page="history" :title="t('history')" :label="t('history_2')">
    <template #head>
      <span>{{ t('other', { count: visits.length }) }}</span>
      <v-btn size="small" @click="logOpen = true">{{ t('log_of_every_visit_2') }}</v-btn>
    </template>
    <div ref="body" class="body">
      <section :aria-label="t('changed_since_last_time')">
        <h2 v-if="history.changed_since">{{ t('changed_since', { when: dayAndYear(history.changed_since) }) }}</h2>
        <h2 v-else>{{ t('the_first_visit') }}</h2>
        <p v-if="!history.changed_since">{{ t('from_the_next_visit_on') }}</p>
        <p v-else-if="!history.changed.length">{{ t('nothing_that_was_read_at') }}</p>
        <table v-else>
          <thead><tr><th /><th class="figure">{{ t('last_visit') }}</th><th class="figure">{{ t('now') }}</th><th class="figure">{{ t('change') }}</th></tr></thead>
          <tbody><tr v-for="row in history.changed" :key="row.what"><td>{{ row.what }}</td><td class="figure">{{ row.before }}</td><td class="figure">{{ row.now }}</td><td class="figure"><b>{{ row.change }}</b></td></tr></tbody>
        </table>
        <p v-if="history.done_since.length">{{ history.done_since.join('. ') }}.</p>
      </section>
      <section v-if="history.charts.length" class="charts" tabindex="0" :aria-label="t('measures_through_the_visits')" @keydown="onKey">
        <h2>{{ t('through_the_visits') }}</h2>
        <div class="row dates" aria-hidden="true">
          <span class="name" />
          <div class="days" :style="{ width: `${chartWidth}px` }">
            <button v-for="one in time.visits" :key="one.id" type="button" class="plain-button" tabindex="-1" :class="{ chosen: one.id === chosen }" :style="{ left: `${46 + one.x * Math.max(chartWidth - 86, 60)}px` }" @click="chosen = one.id">{{ new Date(one.at).toLocaleDateString('en-GB', { month: 'short', year: '2-digit' }) }}</button>
          </div>
        </div>
        <template v-for="(chart, i) in moved" :key="chart.measure">
          <div class="row">
            <span class="name">{{ chart.label }}<small>{{ chart.unit }}</small></span>
            <MeasureChart :chart="chart" :time="time" :width="chartWidth" :height="chart.lines.length > 1 ? CHART : SINGLE" :chosen="chosen" @choose="chosen = $event" />
          </div>
          <div v-if="air && i === 0" class="row">
            <span class="name">{{ air.label }}<small>%</small></span>
            <MeasureChart :chart="air" :time="time" :width="chartWidth" :height="SINGLE" :chosen="chosen" @choose="chosen = $event" />
          </div>
        </template>
        <p v-if="still.length" class="still">{{ t('the_same_at_every_visit', { list: still.join('; ') }) }}</p>
      </section>
      <section v-for="item in pictures" :key="item.label" :aria-label="t('photographs_2', { item: item.label })">
        <h2>{{ item.label }}</h2>
        <div class="pictures"><figure v-for="one in item.all" :key="one.id"><img :src="pictureOf(one.id, 'small')" :alt="one.words || item.label" loading="lazy" /><figcaption>{{ dayAndYear(one.at) }}<template v-if="one.words">: {{ one.words }}</template></figcaption></figure></div>
      </section>
    </div>
    <template #main>
      <v-btn block :href="`/api/instruments/${encodeURIComponent(ticket)}/dossier`" :download="`${ticket}.zip`">{{ t('dossier_as_a_file') }}</v-btn>
    </template>
    <template #todo>
      <nav class="visits" :aria-label="t('visits')">
        <button v-for="one in visits" :key="one.id" type="button" class="plain-button" :aria-pressed="one.id === chosen" @click="chosen = one.id">{{ dayAndYear(one.opened_at) }} · {{ one.label }}</button>
      </nav>
      <VisitCard v-if="visit" :visit="visit" :seals="seals" :ticket="ticket" :is-now="visit.id === visits[0]?.id" />
    </template>
  </InstrumentFrame>
  <p v-else class="absent">{{ t('loading', { ticket }) }}</p>
  <LogDialog v-model="logOpen" :ticket="ticket" every-visit />
</template>

<style scoped>
.body {
  padding: 0 18px 18px;
}
h2 {
  margin: 10px 0 4px;
  font-size: var(--type-label);
}
table {
  width: 100%;
  max-width: 640px;
  border-collapse: collapse;
}
th {
  font-weight: 400;
  color: var(--quiet);
  text-align: left;
}
td {
  padding: 3px 12px 3px 0;
  border-top: 1px solid var(--hairline);
}
.figure {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.charts:focus-visible {
  outline: 2px solid var(--action);
}
.row {
  display: flex;
  align-items: center;
  border-top: 1px solid var(--hairline);
}
.row.dates {
  border-top: 0;
}
.name {
  flex: none;
  width: 168px;
  line-height: 1.25;
}
.name small {
  display: block;
  color: var(--quiet);
}
.days {
  position: relative;
  height: 28px;
}
.days button {
  position: absolute;
  transform: translateX(-50%);
  min-height: 28px;
  padding: 0 2px;
  font-size: var(--type-note);
  white-space: nowrap;
}
.days .chosen {
  font-weight: 700;
}
.visits {
  display: grid;
  max-height: 226px;
  overflow: auto;
  margin-bottom: 12px;
  border-bottom: 1px solid var(--ink);
}
.visits button {
  min-height: var(--hit);
  text-align: left;
}
.visits [aria-pressed='true'] {
  font-weight: 700;
  box-shadow: inset 3px 0 0 var(--ink);
  padding-left: 8px;
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.pictures figure {
  margin: 0;
}
.pictures img {
  height: 150px;
  border-radius: var(--corner);
}
figcaption {
  font-size: var(--type-note);
}
.absent {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 640px) {
  .row {
    display: block;
  }
  .name {
    display: block;
    width: auto;
  }
}
</style>
