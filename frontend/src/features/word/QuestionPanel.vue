<script setup lang="ts">
/** One question: the ways to decide it side by side, what each takes, and the decision with its reason. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Decision } from '@/api'
import { post } from '@/outbox'
import { useBench } from '@/features/bench'
import { useFormEntry } from '@/shared/entry'
import { until } from '@/shared/format'
import { pageOfQuestion, routeOf } from '@/shared/pages'
import { t } from '@/words/word'

const props = defineProps<{ asked: Decision; mayDecide: boolean }>()
/** Whether its ways stand open. */
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()

/** chosen : empty for what is proposed; what the signs speak for changes nothing of what somebody chose. */
const { draft, message: fault, isSending, send } = useFormEntry({ kind: 'decision', of: () => `${bench.ticket}/${props.asked.question}`, empty: () => ({ chosen: '', reason: '' }) })
const chosen = computed({ get: () => draft.value.chosen || proposed(), set: (outcome) => (draft.value.chosen = outcome) })
const reasonField = ref<HTMLInputElement | null>(null)
const outcome = computed(() => props.asked.options.find((row) => row.outcome === chosen.value) ?? null)
const page = computed(() => pageOfQuestion(props.asked.question))
const isBarring = computed(() => props.asked.bars.length > 0 && !props.asked.is_open)

function proposed(): string {
  return props.asked.decided?.outcome ?? props.asked.options.find((row) => row.recommended)?.outcome ?? ''
}
/* Decided here or elsewhere, the next decision begins with what stands now; a reason that was being typed stays. */
watch(() => props.asked.decided?.id, () => (draft.value.chosen = ''))

async function decide(): Promise<void> {
  if (chosen.value === '') return
  const { question, title } = props.asked
  const outcome = chosen.value
  const isSent = await send((id, { reason }) =>
    bench.submit((ticket) =>
      post('/api/instruments/{ticket}/decisions', { params: { path: { ticket } }, body: { id, question, outcome, reason }, words: t('decided', { title }) }),
    ),
    () => (isOpen.value = false),
  )
  if (!isSent) void nextTick(() => reasonField.value?.focus())
}

/** Enter on an answer goes on to the reason, and from there decides. */
function toReason(event: KeyboardEvent): void {
  event.preventDefault()
  reasonField.value?.focus()
}
</script>

<template>
  <form class="question" :class="{ barring: isBarring }" :aria-label="asked.title" @submit.prevent="decide">
    <button type="button" class="plain-button head" :aria-expanded="isOpen" @click="isOpen = !isOpen">
      <span class="title">{{ asked.title }}</span>
      <span v-if="asked.decided" class="said">
        <b>{{ asked.decided.label }}</b>, {{ asked.decided.by }}<template v-if="asked.decided.waits_until && !asked.is_open">{{ t('until', { until: until(asked.decided.waits_until) }) }}</template>
      </span>
      <span v-else-if="!isOpen" class="said">{{ asked.recommended ? t('recommended', { recommended: asked.recommended }) : t('not_decided') }}</span>
    </button>
    <div v-if="isOpen" class="body">
      <p v-if="asked.decided?.reason">“{{ asked.decided.reason }}”</p>
      <p>{{ asked.says.charAt(0).toUpperCase() }}{{ asked.says.slice(1) }}.</p>
      <p class="because">{{ t('signs', { join: asked.because.join('; ') }) }}<template v-if="isBarring">{{ ' ' }}{{ t('until_it_is_decided_these', { to_lower_case: asked.bars.join(', ').toLowerCase() }) }}</template></p>
      <router-link v-if="page && $route.name !== 'page'" class="page" :to="routeOf(bench.ticket, page)">{{ t('what_each_way_would_do') }}</router-link>
      <template v-if="mayDecide">
        <fieldset>
          <legend class="only-read">{{ asked.title }}</legend>
          <label v-for="row in asked.options" :key="row.outcome" class="answer" :class="{ chosen: row.outcome === chosen }">
            <input v-model="chosen" type="radio" :name="`outcome-${asked.question}`" :value="row.outcome" @keydown.enter="toReason" />
            <span>
              <b>{{ row.label }}</b><span v-if="row.recommended" class="recommended">{{ t('recommended_2') }}</span>
              <span v-if="row.figures" class="figures">{{ row.figures }}</span>
              <span v-if="row.outcome === chosen" class="says">{{ row.says }}</span>
            </span>
          </label>
        </fieldset>
        <label class="reason">
          <span>{{ outcome?.needs_reason ? t('reason_kept_and_printed') : t('reason_optional') }}</span>
          <input ref="reasonField" v-model="draft.reason" class="plain-input" maxlength="500" autocomplete="off" />
        </label>
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <v-btn type="submit" variant="flat" :loading="isSending" :disabled="chosen === ''">{{ asked.decided ? t('change_decision') : t('save_decision') }}</v-btn>
      </template>
      <p v-else>{{ t('a_luthier_decides_this') }}</p>
    </div>
  </form>
</template>

<style scoped>
.page {
  display: inline-block;
  padding: 8px 0;
  color: var(--action);
}
.question {
  margin: 0 0 8px;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.barring {
  border: 2px solid var(--ink);
}
.head {
  display: grid;
  width: 100%;
  min-height: var(--hit);
  padding: 7px 14px;
  text-align: left;
  line-height: 1.25;
}
.title {
  font-weight: 700;
}
.body {
  padding: 0 14px 14px;
}
p {
  margin: 0 0 6px;
}
.because {
  color: var(--quiet);
}
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.answer {
  display: flex;
  gap: 9px;
  min-height: var(--hit);
  padding: 9px 0 6px;
  border-top: 1px solid var(--hairline);
  line-height: 1.25;
  cursor: pointer;
}
.answer input {
  flex: none;
  width: 18px;
  height: 18px;
  margin: 1px 0 0;
  accent-color: var(--action);
}
.answer b,
.said b {
  font-weight: 400;
}
.answer.chosen b {
  font-weight: 700;
}
.recommended {
  display: table;
  margin: 2px 0;
  padding: 0 6px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  white-space: nowrap;
}
.figures,
.says {
  display: block;
}
.says {
  color: var(--quiet);
}
.reason {
  display: block;
  margin-bottom: 10px;
}
.reason span {
  display: block;
}
</style>
