<script setup lang="ts">
/** One page of an instrument: the finding, handles whose consequences all move at once, ways, the decision, the caution. */
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { PageHandle, PagePlot } from '@/api'
import { keyOf, useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { PostTrail } from '@/features/sound'
import { StringsRecord } from '@/features/strings'
import { QuestionPanel } from '@/features/word'
import { useCommands } from '@/shared/commands'
import { usePageCommands, usePageTurning, type PageName } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import PageDrawing from './drawn/PageDrawing.vue'
import ConsequenceList from './ConsequenceList.vue'
import HandleField from './HandleField.vue'
import PageTable from './PageTable.vue'
import PlotView from './PlotView.vue'
import ShelfLine from './ShelfLine.vue'
import TemplateLinks from './TemplateLinks.vue'
import { useTried } from './useTried'
import WaysBeside from './WaysBeside.vue'
import { t } from '@/words/pages'

const props = defineProps<{ ticket: string; page: PageName }>()
const router = useRouter()
const route = useRoute()
const bench = useBench()
const atBench = useAtBench()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })

const { view, tried, faults, tryOut, letRest, again } = useTried({
  ticket: () => props.ticket,
  page: () => props.page,
  stamp: () => bench.sheet,
})
const family = computed(() => bench.sheet?.instrument.family ?? '')
const asked = computed(() => bench.sheet?.questions.find(({ question }) => question === view.value?.question) ?? null)
const isDeciding = ref(true)
const isTried = computed(() => Object.keys(tried.value).length > 0)
const retakes = computed(() => view.value?.retake ?? [])
const restsOn = computed(() => view.value?.assumed ?? [])

/** The highest of all plots of the same thing: they are drawn to one scale. */
function mostOf(plot: PagePlot): number {
  const alike = (view.value?.plots ?? []).filter((one) => one.y_label === plot.y_label && one.down === plot.down)
  return Math.max(0, ...alike.flatMap((one) => one.curves.flatMap((curve) => curve.points.map(([, y = 0]) => y))))
}
/** It is measured next, by whoever is still here once the work is on record. */
async function workDone(): Promise<void> {
  const work = view.value?.work
  const here = route.fullPath
  if (work && (await bench.doWork(work)) && route.fullPath === here) void router.push({ name: 'measure', params: { ticket: props.ticket } })
}

/** The page's own act where its part is what to do now; else the way to what comes first. */
const main = computed((): { words: string; run: () => void } | null => {
  const now = view.value
  if (!now || bench.sheet?.instrument.handed_over_at) return null
  const toSheet = () => void router.push({ name: 'bench', params: { ticket: props.ticket } })
  const retake = retakes.value[0]
  if (retake) return { words: t('measure', { name: retake.name }), run: () => void router.push({ name: 'measure', params: { ticket: props.ticket }, query: { place: keyOf(retake) } }) }
  if (now.work && now.consequences.length && atBench.may('measure')) return { words: t('record', { to_lower_case: now.work_label.toLowerCase() }), run: () => void workDone() }
  if (now.instruction.code === 'wait' || now.instruction.code === 'handed_over') return null
  if (!now.is_here) return { words: now.instruction.title, run: toSheet }
  return null
})

/** What is chosen on the drawing needs no field beside it. */
const ON_DRAWING = ['shown', 'note']
const handles = computed(() => (view.value?.handles ?? []).filter((handle) => !ON_DRAWING.includes(handle.name)))
/** A handle stands where it was pulled to; the numbers follow. */
function pulledTo(handle: PageHandle): number {
  const value = tried.value[handle.name]
  return typeof value === 'number' ? value : handle.at
}

usePageTurning(() => props.ticket, () => family.value, () => props.page)
usePageCommands(() => props.ticket, () => family.value)
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'a', words: t('measure_2'), run: () => void router.push({ name: 'measure', params: { ticket: props.ticket } }) },
  { letter: 'h', own: true, words: t('try_other_values'), run: () => document.querySelector<HTMLElement>('.handles input.slide, .handles select')?.focus() },
  { letter: 'j', own: true, words: t('reset_tried_values'), run: letRest, possible: () => isTried.value },
])
</script>

<template>
  <InstrumentFrame :ticket="ticket" :page="page" :title="view?.title ?? ''" :label="view?.title ?? t('calculating')">
    <p v-if="!view" class="coming" role="status">{{ faults[''] || t('calculating_2') }}</p>
    <div v-else class="said">
      <PageDrawing :view="view" :family="bench.sheet?.instrument.family ?? 'violin'" :left-handed="bench.sheet?.instrument.left_handed ?? false" @tried="tryOut" />
      <PostTrail v-if="page === 'post'" :ticket="ticket" @changed="again" />
      <div v-if="view.plots.length" class="plots">
        <PlotView v-for="plot in view.plots" :key="plot.key" :plot="plot" :width="644" :height="view.plots.length > 1 ? 190 : 264" :most="mostOf(plot)" />
      </div>
      <div v-if="retakes.length" class="retake" role="note">
        <p><b>{{ t('measure_first') }}</b></p>
        <ul>
          <li v-for="one in retakes" :key="one.name">{{ one.name }}: {{ one.why }}</li>
        </ul>
        <router-link :to="{ name: 'measure', params: { ticket }, query: { place: keyOf(retakes[0]!) } }">{{ t('measure_3') }}</router-link>
      </div>
      <p v-for="line in view.finding" :key="line" class="finding">{{ line }}</p>
      <p v-if="view.perspective" class="perspective">{{ view.perspective }}</p>
      <StringsRecord v-if="page === 'strings'" :ticket="ticket" />
      <div class="numbers">
        <PageTable v-for="table in view.tables" :key="table.title" :table="table" />
        <ConsequenceList :consequences="view.consequences" class="moving" />
      </div>
      <ShelfLine v-if="view.shelf && family" :family="family" :list="view.shelf" @changed="again" />
      <WaysBeside :ways="view.ways" :decided="asked?.decided?.outcome ?? ''" />
      <p v-if="view.stale_after.length && view.consequences.length" class="quiet">{{ t('measure_again_afterwards', { join: view.stale_after.join(', ') }) }}</p>
    </div>
    <template #todo>
      <template v-if="view">
        <div class="now" role="note">
          <h2 class="title">{{ view.is_here ? view.instruction.title : t('first', { title: view.instruction.title }) }}</h2>
          <template v-if="view.is_here">
            <p v-for="line in [...view.instruction.says, ...view.instruction.do]" :key="line">{{ line }}</p>
          </template>
        </div>
        <p v-if="view.impossible" class="impossible" role="alert">
          {{ view.impossible.sentence }}
          <v-btn v-if="view.impossible.nearest !== null && view.impossible.handle" size="small" @click="tryOut(view.impossible.handle, view.impossible.nearest)">{{ t('take', { nearest: view.impossible.nearest }) }}</v-btn>
        </p>
        <p v-if="faults['']" class="impossible" role="alert">{{ faults[''] }}</p>
        <p v-if="bench.failure" class="impossible" role="alert">{{ bench.failure }}</p>
        <QuestionPanel v-if="asked" v-model="isDeciding" :asked="asked" :may-decide="atBench.may('sign_off')" />
        <section v-if="handles.length" class="try" :aria-label="t('try_other_values_2')">
          <h2>{{ t('try_other_values_2') }}</h2>
          <div class="handles">
            <HandleField v-for="handle in handles" :key="handle.name" :handle="handle" :at="pulledTo(handle)" :fault="faults[handle.name] ?? ''" @moved="tryOut(handle.name, $event)" />
          </div>
          <v-btn v-if="isTried" class="rest" @click="letRest">{{ t('reset_values') }}</v-btn>
        </section>
        <template v-if="restsOn.length">
          <h2>{{ t('assumed_not_measured') }}</h2>
          <ul class="assumed"><li v-for="line in restsOn" :key="line">{{ line }}</li></ul>
        </template>
        <router-link v-if="page === 'bridge' || page === 'nut'" class="other" :to="{ name: 'recipe', params: { ticket } }">{{ t('other_schools_and_recipes_beside') }}</router-link>
        <TemplateLinks :ticket="ticket" :page="page" />
      </template>
    </template>
    <template #main>
      <template v-if="view">
        <p v-if="view.caution" class="caution">{{ view.caution }}</p>
        <v-btn v-if="main" variant="flat" block class="main-act" @click="main.run">{{ main.words }}</v-btn>
      </template>
    </template>
  </InstrumentFrame>
</template>

<style scoped>
.coming {
  padding: 60px 24px;
}
.said {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  padding: 0 18px 18px;
}
h2 {
  margin: 0 0 2px;
  font-size: var(--type-text);
}
.title {
  font-size: var(--type-title);
  line-height: 1.2;
}
.now p {
  margin: 4px 0;
}
.try {
  margin: 12px 0;
}
.main-act {
  min-height: var(--main-button);
  height: auto;
}
.main-act :deep(.v-btn__content) {
  white-space: normal;
}
.perspective {
  margin: 4px 0 8px;
  color: var(--quiet);
  font-size: var(--type-note);
  line-height: 1.4;
}
.finding {
  margin: 0;
  font-size: var(--type-label);
  line-height: 1.35;
}
.retake {
  padding: 8px 14px;
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
}
.retake p,
.retake ul {
  margin: 0;
}
.retake a {
  display: inline-block;
  padding: 10px 0;
  color: var(--action);
}
.plots {
  display: grid;
  gap: 6px;
}
.numbers {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 28px;
  align-items: start;
}
.moving {
  flex: 1 1 400px;
  min-width: 0;
}
.rest {
  margin: 4px 0 10px;
}
.impossible {
  margin: 8px 0;
  padding: 8px 12px;
  border: 2px solid var(--ink);
  border-radius: var(--corner);
}
.assumed {
  margin: 0;
  padding-left: 18px;
  font-style: italic;
}
.caution {
  margin: 0 0 8px;
  padding-left: 10px;
  border-left: 4px solid var(--ink);
  font-size: var(--type-note);
  line-height: 1.35;
}
.other {
  display: inline-block;
  padding: 10px 0;
  color: var(--action);
}
.quiet {
  margin: 0;
  color: var(--quiet);
}
</style>
