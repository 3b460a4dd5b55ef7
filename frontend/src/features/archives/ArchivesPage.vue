<script setup lang="ts">
/** The house as a file that outlives this program, and files of that kind taken in again: looked at before anything is kept. */
import { computed, ref, watch } from 'vue'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import ReadingsIn from './ReadingsIn.vue'
import { useArchives } from './useArchives'
import { t } from '@/words/archives'

type Choice = 'same' | 'other' | 'skip'
interface Found {
  kind: string
  made_at: string
  instruments: number
  visits: number
  readings: number
  photographs: number
  recordings: number
  shop: boolean
  takes_shop: boolean
  clashes: { ticket: string; says: string; is_same: boolean; adds: number }[]
  more_clashes: number
}
const CHOICES: { value: Choice; label: string }[] = [
  { value: 'same', label: t('the_same_add_its_visits') },
  { value: 'other', label: t('another_give_it_a_new') },
  { value: 'skip', label: t('leave_it_out') },
]
const atBench = useAtBench()
const { job, failure, isSending, exportHouse, bring, takeIn, stop, forget } = useArchives()
const field = ref<HTMLInputElement | null>(null)
const looked = computed(() => (job.value?.what === 'look' && job.value.state === 'done' ? (job.value.found as unknown as Found) : null))
const choices = ref<Record<string, Choice>>({})
const forAll = ref<Choice | ''>('')
watch(looked, () => {
  choices.value = {}
  forAll.value = ''
})
const undecided = computed(() => {
  if (!looked.value || forAll.value) return 0
  return looked.value.clashes.filter((one) => !choices.value[one.ticket]).length + looked.value.more_clashes
})
const share = computed(() => (job.value?.of ? (job.value.done / job.value.of) * 100 : 0))
const WHAT = { export: t('writing_the_archive'), look: t('looking_through_the_file'), import: t('taking_it_in') } as const
const taken = computed(() => (job.value?.what === 'import' && job.value.state === 'done' ? (job.value.found as { instruments: number; visits: number; readings: number; skipped: number; renamed: Record<string, string> }) : null))
const renamed = computed(() => Object.entries(taken.value?.renamed ?? {}).map(([was, now]) => t('is_now', { was, now })))
function chosen(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void bring(file)
  input.value = ''
}
function send(): void {
  void takeIn({ ...(forAll.value ? { '': forAll.value } : {}), ...choices.value })
}
useCommands([
  { letter: 'a', own: true, words: t('write_an_archive_of_the'), run: () => void exportHouse(), possible: () => atBench.may('figures') },
  { letter: 'd', own: true, words: t('choose_an_archive_to_take'), run: () => field.value?.click(), possible: () => atBench.may('figures') },
])
</script>

<template>
  <main class="page" :aria-label="t('archives')">
    <h1>{{ t('archives_2') }}</h1>
    <div class="two">
      <section>
        <h2>{{ t('out_of_the_house') }}</h2>
        <p>{{ t('every_instrument_with_all_its') }}</p>
        <v-btn v-if="atBench.may('figures')" variant="flat" :disabled="job?.state === 'running'" :loading="isSending" @click="exportHouse">{{ t('write_an_archive_of_the_2') }}</v-btn>
        <p v-else>{{ t('the_owner_writes_and_takes') }}</p>
        <p>{{ t('one_instrument_by_itself_dossier') }}</p>
      </section>
      <section v-if="atBench.may('figures')">
        <h2>{{ t('into_the_house') }}</h2>
        <p>{{ t('a_file_is_looked_through') }}</p>
        <input ref="field" type="file" accept=".zip,application/zip" class="file" :aria-label="t('archive_to_take_in')" :disabled="job?.state === 'running'" @change="chosen" />
      </section>
    </div>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    <section v-if="job" class="job" :aria-label="WHAT[job.what as keyof typeof WHAT]">
      <template v-if="job.state === 'running'">
        <h2>{{ WHAT[job.what as keyof typeof WHAT] }} …</h2>
        <v-progress-linear :model-value="share" :indeterminate="!job.of" height="8" :aria-label="t('how_far_it_is')" />
        <p role="status">{{ job.of ? t('of_instruments', { done: job.done, of: job.of }) : t('beginning') }}</p>
        <v-btn @click="stop">{{ t('stop') }}</v-btn>
      </template>
      <template v-else-if="job.state === 'stopped'">
        <p>{{ t('stopped_nothing_was_taken_in') }}</p>
        <v-btn @click="forget">{{ t('close') }}</v-btn>
      </template>
      <template v-else-if="job.state === 'failed'">
        <p class="fault" role="alert">{{ job.sentence }}</p>
        <v-btn @click="forget">{{ t('close') }}</v-btn>
      </template>
      <template v-else-if="job.what === 'export'">
        <p>{{ t('the_archive_holds_other_it', { count: Number(job.found.instruments) }) }}</p>
        <div class="acts"><v-btn @click="forget">{{ t('throw_it_away') }}</v-btn><v-btn variant="flat" :href="`/api/archives/${job.id}/file`" download="house.zip">{{ t('save_the_archive') }}</v-btn></div>
      </template>
      <template v-else-if="looked">
        <h2>{{ looked.kind === 'house' ? t('a_whole_house') : t('one_instrument') }}</h2>
        <p>{{ t('other_other_readings_photographs_recordi', { instruments: looked.instruments, visits: looked.visits, readings: looked.readings, photographs: looked.photographs, recordings: looked.recordings, when: new Date(looked.made_at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' }) }) }}</p>
        <p v-if="looked.shop">{{ looked.takes_shop ? t('its_figures_recipes_drawers_and') : t('its_figures_recipes_and_drawers') }}</p>
        <template v-if="looked.clashes.length">
          <h3>{{ t('tickets_that_are_taken_here') }}</h3>
          <label>{{ t('for_all_of_them') }} <select v-model="forAll" class="entry"><option value="">{{ t('each_by_itself') }}</option><option v-for="one in CHOICES" :key="one.value" :value="one.value">{{ one.label }}</option></select></label>
          <ul v-if="!forAll">
            <li v-for="clash in looked.clashes" :key="clash.ticket">
              <b>{{ clash.ticket }}</b>
              <span>{{ clash.says }}; {{ clash.is_same ? t('this_very_instrument') : t('the_same_ticket') }}; {{ t('one_other', { adds: clash.adds }) }}</span>
              <select v-model="choices[clash.ticket]" class="entry" :aria-label="t('what_is', { ticket: clash.ticket })"><option v-for="one in CHOICES.filter((row) => row.value !== 'other' || !clash.is_same)" :key="one.value" :value="one.value">{{ one.label }}</option></select>
            </li>
          </ul>
          <p v-if="looked.more_clashes">{{ t('and_more_say_what_holds', { count: looked.more_clashes }) }}</p>
        </template>
        <p v-if="undecided">{{ t('other_undecided', { count: undecided }) }}</p>
        <div class="acts"><v-btn @click="forget">{{ t('cancel') }}</v-btn><v-btn variant="flat" :disabled="undecided > 0" :loading="isSending" @click="send">{{ t('take_in') }}</v-btn></div>
      </template>
      <template v-else-if="taken">
        <p role="status">{{ t('other_with_visits_and_readings', { instruments: taken.instruments, visits: taken.visits, readings: taken.readings, skipped: taken.skipped }) }}</p>
        <p v-for="one in renamed" :key="one">{{ one }}</p>
        <v-btn @click="forget">{{ t('close') }}</v-btn>
      </template>
    </section>
    <ReadingsIn v-if="atBench.may('measure')" />
  </main>
</template>

<style scoped>
.page {
  max-width: 1080px;
  margin: 6px auto 80px;
  padding: 12px 24px 24px;
  background: var(--sheet);
  border-radius: var(--corner);
}
h1 {
  margin: 0;
  font-size: var(--type-title);
}
h2 {
  margin: 14px 0 4px;
  font-size: var(--type-label);
}
h3 {
  margin: 10px 0 4px;
  font-size: var(--type-text);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
}
.job {
  margin: 16px 0;
  padding: 4px 16px 16px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.file {
  min-height: var(--hit);
}
ul {
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr) 280px;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--hairline);
  padding: 4px 0;
}
label {
  display: flex;
  align-items: center;
  gap: 8px;
}
label .entry {
  width: auto;
}
.acts {
  display: flex;
  justify-content: space-between;
  margin-top: 12px;
}
@media (max-width: 760px) {
  .two,
  li {
    grid-template-columns: 1fr;
  }
}
</style>
