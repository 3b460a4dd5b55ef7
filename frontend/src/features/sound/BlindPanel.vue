<script setup lang="ts">
/** Two recordings, as often as was agreed on before, in an order that nobody is told: what came of it is said at the end. */
import { computed, ref, watch } from 'vue'
import type { SoundView } from '@/api'
import { recordingsOf } from './words'
import type { Faults } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{
  view: SoundView
  tryBlind: (one: string, other: string, trials: number) => Promise<Faults>
  choose: (trial: string, chosen: 'first' | 'second' | 'neither') => Promise<Faults>
  giveUp: (series: string) => Promise<Faults>
}>()
const emit = defineEmits<{ done: [] }>()
const recordings = computed(() => recordingsOf(props.view))
const one = ref('')
const other = ref('')
const trials = ref(10)
const fault = ref('')
const open = computed(() => props.view.blind.find((series) => series.trial !== '') ?? null)
const ended = computed(() => props.view.blind.filter((series) => series.trial === ''))
const ANSWERS = { first: t('the_first'), second: t('the_second'), neither: t('no_difference') } as const

/** The second click of a double click must not answer the comparison that has just come. */
const STEADY_MS = 700
let shownAt = 0
watch(() => open.value?.trial, () => (shownAt = performance.now()), { immediate: true })
function answer(trial: string, chosen: keyof typeof ANSWERS): void {
  if (performance.now() - shownAt >= STEADY_MS) void run(() => props.choose(trial, chosen))
}

async function run(request: () => Promise<Faults>): Promise<void> {
  fault.value = Object.values((await request()) ?? {})[0] ?? ''
}
</script>

<template>
  <section :aria-label="t('compare_blind')">
    <h2>{{ t('compare_blind') }}</h2>
    <details v-for="(series, i) in ended" :key="series.id" :open="i === 0">
      <summary>{{ series.says }}</summary>
      <ol v-if="series.each.length"><li v-for="(words, n) in series.each" :key="n">{{ words }}</li></ol>
    </details>
    <p v-if="recordings.length < 2" class="quiet">{{ t('two_recordings_are_wanted_of') }}</p>
    <template v-else-if="open">
      <p><b>{{ t('comparison_of', { n: open.done + 1, of: open.of }) }}</b> {{ t('listens_to_both_as_often', { player: open.player }) }}</p>
      <div v-for="which in (['first', 'second'] as const)" :key="`${open.trial}${which}`" class="sound">
        <b>{{ t('the', { which }) }}</b><audio controls preload="none" :src="`/api/blind/${open.trial}/${which}`" :aria-label="t('the', { which })"></audio>
      </div>
      <div class="ways">
        <v-btn v-for="(label, key) in ANSWERS" :key="key" variant="flat" @click="answer(open!.trial, key)">{{ label }}</v-btn>
      </div>
      <p class="quiet">{{ t('which_was_which_is_said') }}</p>
      <div class="ways"><v-btn @click="run(() => giveUp(open!.id))">{{ t('give_up_this_series') }}</v-btn></div>
    </template>
    <template v-else>
      <label>{{ t('one') }}<select v-model="one"><option value="">{{ t('choose') }}</option><option v-for="row in recordings" :key="row.id" :value="row.id">{{ row.of }}: {{ row.words }}</option></select></label>
      <label>{{ t('the_other') }}<select v-model="other"><option value="">{{ t('choose') }}</option><option v-for="row in recordings" :key="row.id" :value="row.id">{{ row.of }}: {{ row.words }}</option></select></label>
      <fieldset class="chances">
        <legend>{{ t('how_often') }}</legend>
        <label v-for="chance in view.blind_chances" :key="chance.trials"><input v-model="trials" type="radio" :value="chance.trials" name="trials" />{{ chance.says }}</label>
      </fieldset>
      <div class="ways"><v-btn variant="flat" :disabled="!one || !other" @click="run(() => tryBlind(one, other, trials))">{{ t('begin_order_hidden') }}</v-btn></div>
    </template>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <div class="ways"><v-btn @click="emit('done')">{{ t('done') }}</v-btn></div>
  </section>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.sound {
  display: grid;
  margin-bottom: 6px;
}
audio {
  width: 100%;
}
ol {
  margin: 6px 0;
  padding-left: 22px;
}
.chances {
  display: grid;
  gap: 4px;
  margin: 8px 0 0;
  padding: 0;
  border: 0;
}
.chances label {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr);
  align-items: start;
  gap: 4px;
  line-height: 1.35;
}
summary {
  min-height: 36px;
  padding: 6px 0;
  font-weight: 700;
  cursor: pointer;
}
</style>
