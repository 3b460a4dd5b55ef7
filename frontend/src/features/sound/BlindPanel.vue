<script setup lang="ts">
/** Two recordings in an order that nobody is told: the player chooses, then it is said which was which. */
import { computed, ref } from 'vue'
import type { SoundView } from '@/api'
import { recordingsOf } from './words'
import type { Faults } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{
  view: SoundView
  tryBlind: (one: string, other: string) => Promise<Faults>
  choose: (trial: string, chosen: 'first' | 'second' | 'neither') => Promise<Faults>
}>()
const emit = defineEmits<{ done: [] }>()
const recordings = computed(() => recordingsOf(props.view))
const one = ref('')
const other = ref('')
const fault = ref('')
const open = computed(() => props.view.blind.find((trial) => trial.chosen === '') ?? null)
const ANSWERS = { first: t('the_first'), second: t('the_second'), neither: t('no_difference') } as const

async function run(request: () => Promise<Faults>): Promise<void> {
  fault.value = Object.values((await request()) ?? {})[0] ?? ''
}
</script>

<template>
  <section :aria-label="t('compare_blind')">
    <h2>{{ t('compare_blind') }}</h2>
    <p v-if="recordings.length < 2" class="quiet">{{ t('two_recordings_are_wanted_of') }}</p>
    <template v-else-if="open">
      <p>{{ t('listens_to_both_as_often', { player: open.player }) }}</p>
      <div v-for="which in (['first', 'second'] as const)" :key="which" class="sound">
        <b>{{ t('the', { which }) }}</b><audio controls preload="none" :src="`/api/blind/${open.id}/${which}`" :aria-label="t('the', { which })"></audio>
      </div>
      <div class="ways">
        <v-btn v-for="(label, key) in ANSWERS" :key="key" variant="flat" @click="run(() => choose(open!.id, key))">{{ label }}</v-btn>
      </div>
    </template>
    <template v-else>
      <label>{{ t('one') }}<select v-model="one"><option value="">{{ t('choose') }}</option><option v-for="row in recordings" :key="row.id" :value="row.id">{{ row.of }}: {{ row.words }}</option></select></label>
      <label>{{ t('the_other') }}<select v-model="other"><option value="">{{ t('choose') }}</option><option v-for="row in recordings" :key="row.id" :value="row.id">{{ row.of }}: {{ row.words }}</option></select></label>
      <div class="ways"><v-btn variant="flat" :disabled="!one || !other" @click="run(() => tryBlind(one, other))">{{ t('begin_order_hidden') }}</v-btn></div>
    </template>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <p v-if="view.blind_words"><b>{{ view.blind_words }}</b></p>
    <ul v-if="view.blind.some((trial) => trial.chosen)">
      <li v-for="trial in view.blind.filter((row) => row.chosen)" :key="trial.id">{{ trial.says }} <span class="quiet">{{ t('first_second', { first: trial.first, second: trial.second }) }}</span></li>
    </ul>
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
ul {
  margin: 6px 0;
  padding-left: 18px;
}
</style>
