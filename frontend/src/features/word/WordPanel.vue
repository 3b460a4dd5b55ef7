<script setup lang="ts">
/** What to do now: title, reason, steps, caution, the one main button; then what is to be decided. */
import { computed, ref } from 'vue'
import type { BenchSheet } from '@/api'
import { useBench } from '@/features/bench'
import { ago } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import QuestionList from './QuestionList.vue'
import SlipActs from './SlipActs.vue'
import { useToolCheck } from '@/features/tools'
import { t as tools } from '@/words/tools'
import { t } from '@/words/word'

const props = defineProps<{ sheet: BenchSheet; opened: string | null; failure: string; mayWork: boolean }>()
const emit = defineEmits<{ closeWhy: []; record: [work: string]; strings: []; recipe: []; undo: []; takeBack: [] }>()

const atBench = useAtBench()
const bench = useBench()
const { check } = useToolCheck()
const list = ref<InstanceType<typeof QuestionList> | null>(null)
const LONG = 240
const allOfIt = ref(false)
const complaint = computed(() => {
  const words = props.sheet.instrument.complaint
  return allOfIt.value || words.length <= LONG ? words : `${words.slice(0, LONG)} …`
})
const told = computed(() => props.sheet.instruction)
const recipe = computed(() => [props.sheet.recipe.name, ...props.sheet.recipe.own].join(' · '))
defineExpose({ decide: (question?: string) => list.value?.decide(question) })
const why = computed(() => (props.opened === null ? null : (bench.whys[props.opened] ?? null)))
</script>

<template>
  <div class="word" role="group" :aria-label="t('what_the_sheet_says')">
    <p class="who">
      <b>{{ sheet.instrument.ticket }}</b> {{ sheet.instrument.family }} {{ sheet.instrument.size
      }}<template v-if="sheet.instrument.left_handed">{{ t('left_handed') }}</template><template v-if="sheet.instrument.opposite_build">{{ t('built_for_the_other_hand') }}</template><template v-if="sheet.instrument.owner"> · {{ sheet.instrument.owner }}</template> · {{ sheet.instrument.visit_label }}
      <template v-if="complaint"><br /><span class="complaint">“{{ complaint }}”</span>
        <button v-if="sheet.instrument.complaint.length > LONG" type="button" class="plain-button more" @click="allOfIt = !allOfIt">{{ allOfIt ? t('less') : t('all_of_it') }}</button>
      </template>
    </p>
    <p v-for="line in sheet.instrument.heed" :key="line" class="heed">{{ line }}</p>
    <p v-if="sheet.instrument.handed_over_at" class="gone">
      {{ t('handed_over_by_open_a', { ago: ago(sheet.instrument.handed_over_at), handed_over_by: sheet.instrument.handed_over_by }) }}
      <v-btn v-if="atBench.may('sign_off')" size="small" @click="emit('takeBack')">{{ t('undo_hand_over') }}</v-btn>
    </p>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <section v-if="why" class="why" aria-live="polite">
      <h2>
        {{ why.title }}
        <button type="button" class="plain-button close" :aria-label="t('close')" @click="emit('closeWhy')">×</button>
      </h2>
      <div class="lines">
        <p v-for="line in why.lines" :key="line">{{ line }}</p>
      </div>
      <p v-if="why.follows" class="follows">{{ why.follows }}</p>
      <p v-if="why.lines.some((line) => line.includes('±'))" class="follows">{{ t('plus_minus') }}</p>
    </section>
    <section :aria-label="t('what_to_do_now')">
    <h2 class="title">{{ told.title }}</h2>
    <p v-for="line in told.says" :key="line">{{ line }}</p>
    <ol v-if="told.do.length > 1" class="do">
      <li v-for="line in told.do" :key="line">{{ line }}</li>
    </ol>
    <p v-else-if="told.do.length" class="do">{{ told.do[0] }}</p>
    <SlipActs v-if="told.slip && mayWork" :slip="told.slip" @strings="emit('strings')" />
    <div v-if="mayWork && told.also.length && !sheet.instrument.handed_over_at" class="also">
      <v-btn v-for="one in told.also" :key="one.work" @click="emit('record', one.work)">{{ one.label }}</v-btn>
    </div>
    </section>
    <div v-for="one in sheet.notices" :key="one.says" class="asks" role="note">
      <p>{{ one.says }}</p>
      <v-btn v-if="one.check && mayWork" size="small" @click="check(one.check)">{{ tools('check_now') }}</v-btn>
    </div>
    <QuestionList
      ref="list"
      :questions="sheet.questions"
      :asked="told.question"
      :may-decide="atBench.may('sign_off')"
    />
    <template v-if="sheet.proposals.length">
      <h2>{{ t('found_to_be_planned') }}</h2>
      <p v-for="line in sheet.proposals" :key="line">{{ line.charAt(0).toUpperCase() }}{{ line.slice(1) }}.</p>
    </template>
    <template v-if="sheet.cut.assumed.length">
      <h2>{{ t('assumed_not_measured') }}</h2>
      <ul class="assumed">
        <li v-for="line in sheet.cut.assumed" :key="line">{{ line }}</li>
      </ul>
    </template>
    <p class="of">
      <button type="button" class="plain-button link" @click="emit('strings')">{{ sheet.strings ? sheet.strings.name : t('no_strings_chosen') }}</button>
      <button type="button" class="plain-button link" @click="emit('recipe')">{{ recipe }}</button>
    </p>
    <div class="works">
      <v-btn v-if="mayWork && sheet.undoable" :title="sheet.undoable.words" @click="emit('undo')">{{ t('undo_2', { undoable: sheet.undoable.words }) }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.who {
  padding-bottom: 8px;
  margin-bottom: 10px;
  border-bottom: 1px solid var(--hairline);
}
.title {
  font-size: var(--type-title);
  line-height: 1.2;
  margin: 0 0 8px;
}
h2 {
  font-size: var(--type-text);
  margin: 12px 0 4px;
}
p {
  margin: 0 0 6px;
}
ol {
  margin: 0;
  padding-left: 22px;
}
.assumed {
  list-style: none;
  margin: 0;
  padding: 0;
}
.assumed li {
  display: inline-block;
  margin-right: 14px;
}
.assumed li::before {
  content: '';
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 8px;
  border: 1.6px solid var(--ink);
  border-radius: 50%;
}
.why {
  margin-bottom: 12px;
}
.why h2 {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.close {
  min-width: var(--hit);
  min-height: var(--hit);
  text-align: center;
  font-size: var(--type-title);
}
.lines {
  padding: 10px 14px 6px;
  background: var(--note);
  border-left: 3px solid var(--action);
}
.follows {
  margin-top: 6px;
  color: var(--quiet);
}
.heed {
  padding-left: 10px;
  border-left: 3px solid var(--ink);
}
.gone {
  padding: 8px 12px;
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
}
.asks {
  padding-left: 10px;
  border-left: 3px dotted var(--ink);
}
.do {
  font-weight: 700;
}
.also {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 10px 0;
}
.of {
  display: grid;
  justify-items: start;
  margin-top: 10px;
}
.link {
  min-height: 36px;
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
.complaint {
  overflow-wrap: anywhere;
}
.more {
  min-height: 32px;
  text-decoration: underline;
}
.failure {
  padding: 8px 12px;
  border: 2px solid var(--error);
  border-radius: var(--corner);
  font-weight: 700;
}
.works {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 14px;
}
.works :deep(.v-btn) {
  max-width: 100%;
}
.works :deep(.v-btn__content) {
  overflow: hidden;
  text-overflow: ellipsis;
  display: block;
}
</style>
