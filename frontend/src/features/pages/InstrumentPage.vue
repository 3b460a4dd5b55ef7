<script setup lang="ts">
/** One page of an instrument: the finding, handles whose consequences all move at once, ways, the decision, the caution. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { PageHandle } from '@/api'
import { keyOf, useBench } from '@/features/bench'
import { OtherViews } from '@/features/drawing'
import { PostTrail } from '@/features/sound'
import { StringsRecord } from '@/features/strings'
import { QuestionPanel } from '@/features/word'
import { useCommands } from '@/shared/commands'
import PageLinks from '@/shared/PageLinks.vue'
import { usePageCommands, usePageTurning, type PageName } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import ConsequenceList from './ConsequenceList.vue'
import HandleField from './HandleField.vue'
import PageTable from './PageTable.vue'
import PlotView from './PlotView.vue'
import ShelfLine from './ShelfLine.vue'
import TemplateLinks from './TemplateLinks.vue'
import { useTried } from './useTried'
import WaysBeside from './WaysBeside.vue'

const props = defineProps<{ ticket: string; page: PageName }>()
const router = useRouter()
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

/** The drawing that goes with a page, computed from the same readings. */
const DRAWN: Partial<Record<PageName, 'side' | 'plan'>> = { neck: 'side', tail: 'side', bar: 'plan' }
const drawn = computed(() => DRAWN[props.page])
async function workDone(): Promise<void> {
  if (view.value?.work && (await bench.doWork(view.value.work))) void router.push({ name: 'measure', params: { ticket: props.ticket } })
}

/** A handle stands where it was pulled to; the numbers follow. */
function pulledTo(handle: PageHandle): number {
  const value = tried.value[handle.name]
  return typeof value === 'number' ? value : handle.at
}

usePageTurning(() => props.ticket, () => family.value, () => props.page)
usePageCommands(() => props.ticket, () => family.value)
useCommands([
  { letter: 'e', words: 'the sheet', run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'a', words: 'measure in full', run: () => void router.push({ name: 'measure', params: { ticket: props.ticket } }) },
  { letter: 'h', own: true, words: 'the first handle', run: () => document.querySelector<HTMLElement>('.handles input.slide, .handles select')?.focus() },
  { letter: 'j', own: true, words: 'handles back to rest', run: letRest, possible: () => isTried.value },
])
</script>

<template>
  <div class="page">
    <PageLinks :ticket="ticket" :family="family" :here="page" :parts="bench.sheet?.parts" class="links" />
    <main v-if="view" class="said" :aria-label="view.title">
      <h1>{{ ticket }} · {{ view.title }}</h1>
      <div class="now" role="note">
        <p><b>{{ view.is_here ? view.instruction.title : `First: ${view.instruction.title}` }}</b></p>
        <template v-if="view.is_here">
          <p v-for="line in [...view.instruction.says, ...view.instruction.do]" :key="line">{{ line }}</p>
        </template>
      </div>
      <p v-for="line in view.finding" :key="line" class="finding">{{ line }}</p>
      <StringsRecord v-if="page === 'strings'" :ticket="ticket" />
      <PostTrail v-if="page === 'post'" :ticket="ticket" @changed="again" />
      <div v-if="retakes.length" class="retake" role="note">
        <p><b>Measure first:</b></p>
        <ul>
          <li v-for="one in retakes" :key="one.name">{{ one.name }}: {{ one.why }}</li>
        </ul>
        <router-link :to="{ name: 'measure', params: { ticket }, query: { place: keyOf(retakes[0]!) } }">Measure</router-link>
      </div>
      <div class="plots" :class="{ two: view.plots.length > 1 }">
        <PlotView v-for="plot in view.plots" :key="plot.key" :plot="plot" :width="view.plots.length > 1 ? 460 : 820" :height="view.plots.length > 1 ? 220 : 260" />
      </div>
      <div class="numbers">
        <PageTable v-for="table in view.tables" :key="table.title" :table="table" />
        <ConsequenceList :consequences="view.consequences" class="moving" />
      </div>
      <ShelfLine v-if="view.shelf && family" :family="family" :list="view.shelf" @changed="again" />
      <OtherViews v-if="drawn && bench.sheet" :view="drawn" :sheet="bench.sheet" :width="820" :height="250" class="drawn" />
      <WaysBeside :ways="view.ways" :decided="asked?.decided?.outcome ?? ''" />
      <p v-if="view.stale_after.length && view.consequences.length" class="quiet">After that, measure again: {{ view.stale_after.join(', ') }}.</p>
    </main>
    <p v-else class="said" role="status">{{ faults[''] || 'Calculating …' }}</p>
    <aside v-if="view" class="side" aria-label="What if">
      <template v-if="view.handles.length">
        <h2>What if</h2>
        <div class="handles">
          <HandleField v-for="handle in view.handles" :key="handle.name" :handle="handle" :at="pulledTo(handle)" :fault="faults[handle.name] ?? ''" @moved="tryOut(handle.name, $event)" />
        </div>
        <v-btn v-if="isTried" class="rest" @click="letRest">Back to rest</v-btn>
      </template>
      <p v-if="view.impossible" class="impossible" role="alert">
        {{ view.impossible.sentence }}
        <v-btn v-if="view.impossible.nearest !== null && view.impossible.handle" size="small" @click="tryOut(view.impossible.handle, view.impossible.nearest)">Take {{ view.impossible.nearest }}</v-btn>
      </p>
      <p v-if="faults['']" class="impossible" role="alert">{{ faults[''] }}</p>
      <QuestionPanel v-if="asked" v-model="isDeciding" :asked="asked" :may-decide="atBench.may('sign_off')" />
      <template v-if="restsOn.length">
        <h2>Assumed, not measured</h2>
        <ul class="assumed"><li v-for="line in restsOn" :key="line">{{ line }}</li></ul>
      </template>
      <router-link v-if="page === 'bridge' || page === 'nut'" class="other" :to="{ name: 'recipe', params: { ticket } }">other schools and recipes, beside each other</router-link>
      <TemplateLinks :ticket="ticket" :page="page" />
      <p v-if="view.caution" class="caution">{{ view.caution }}</p>
      <p v-if="bench.failure" class="impossible" role="alert">{{ bench.failure }}</p>
      <v-btn v-if="view.work && view.consequences.length && atBench.may('measure')" class="done" @click="workDone">Record: {{ view.work_label.toLowerCase() }}</v-btn>
    </aside>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 0 12px;
  padding: 2px 16px 64px;
  align-items: start;
}
.links {
  grid-column: 1 / -1;
}
.said,
.side {
  padding: 10px 18px 18px;
  background: var(--sheet);
  border-radius: 4px;
}
.said {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
.side {
  position: sticky;
  top: 6px;
}
h1 {
  margin: 0;
  font-size: 23px;
}
h2 {
  margin: 0 0 2px;
  font-size: 17px;
}
.finding {
  margin: 0;
  font-size: 18px;
  line-height: 1.35;
}
.retake {
  padding: 8px 14px;
  border: 2px dashed var(--ink);
  border-radius: 4px;
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
  gap: 6px 14px;
}
.plots.two {
  grid-template-columns: 1fr 1fr;
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
  border-radius: 4px;
}
.assumed {
  margin: 0;
  padding-left: 18px;
  font-style: italic;
}
.caution {
  margin: 12px 0 0;
  padding: 8px 12px;
  border-left: 5px solid var(--above);
  background: var(--note);
}
.other {
  display: inline-block;
  padding: 10px 0;
  color: var(--action);
}
.done {
  margin-top: 10px;
}
.drawn {
  max-width: 100%;
  height: auto;
}
.quiet {
  margin: 0;
  color: var(--quiet);
}
@media (max-width: 1000px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
  }
}
@media (max-width: 640px) {
  .page {
    padding: 2px 0 56px;
  }
  .plots.two {
    grid-template-columns: 1fr;
  }
}
</style>
