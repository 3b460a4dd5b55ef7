<script setup lang="ts">
/** One step of the course: what it is for, and what somebody can say of it. */
import { computed, watch } from 'vue'
import type { Stop } from '@/api'
import { post } from '@/outbox'
import { useBench } from '@/features/bench'
import { useFormEntry } from '@/shared/entry'
import { focusChosenInDialog } from '@/shared/focus'
import { until as untilWhen } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/course'

type Act = 'done' | 'pass-over' | 'wait' | 'go-on'

const props = defineProps<{ stop: Stop | null }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()
const atBench = useAtBench()

const {
  draft,
  message,
  faults,
  isSending,
  begin,
  send,
  clear,
} = useFormEntry({ kind: 'step', of: () => `${bench.ticket}/${props.stop?.key ?? ''}`, empty: () => ({ chosen: '' as Act | '', reason: '', until: '' }) })
/** What can be said changes as the course goes on: what was chosen counts while it is offered. */
const chosen = computed<Act | ''>({
  get: () => acts.value.find((one) => one.act === draft.value.chosen)?.act ?? acts.value[0]?.act ?? '',
  set: (act) => (draft.value.chosen = act),
})

const acts = computed(() => {
  const stop = props.stop
  if (!stop) return []
  const offered: { act: Act; label: string; may: boolean }[] = [
    { act: 'done', label: t('it_is_done'), may: atBench.may('measure') && stop.by_hand && ['here', 'ahead'].includes(stop.state) },
    { act: 'go-on', label: t('end_the_wait_now'), may: atBench.may('sign_off') && stop.state === 'waiting' },
    { act: 'wait', label: t('it_waits_until'), may: atBench.may('measure') && stop.state !== 'done' },
    { act: 'pass-over', label: t('skip_this_step'), may: atBench.may('sign_off') && !['done', 'passed'].includes(stop.state) },
  ]
  return offered.filter((one) => one.may)
})

watch(isOpen, (open) => {
  if (open) begin()
})

async function say(): Promise<void> {
  const step = props.stop?.key
  const act = chosen.value
  if (!step || act === '') return
  const words = `${props.stop?.label ?? step}: ${acts.value.find((one) => one.act === act)?.label ?? act}`
  await send((id, { reason, until }) =>
    bench.submit((ticket) => {
      const params = { path: { ticket, step } }
      if (act === 'done') return post('/api/instruments/{ticket}/steps/{step}/done', { params, body: { id }, words })
      if (act === 'wait') {
        const time = until ? new Date(until).toISOString() : ''
        return post('/api/instruments/{ticket}/steps/{step}/wait', { params, body: { id, reason, until: time }, words })
      }
      const path = act === 'go-on' ? '/api/instruments/{ticket}/steps/{step}/go-on' : '/api/instruments/{ticket}/steps/{step}/pass-over'
      return post(path, { params, body: { id, reason }, words })
    }),
    () => (isOpen.value = false),
  )
}
/** What was typed is not wanted; Escape only shuts the form. */
function cancel(): void {
  clear()
  isOpen.value = false
}
</script>

<template>
  <v-dialog v-model="isOpen" @after-enter="focusChosenInDialog">
    <v-card v-if="stop">
      <v-card-title tag="h2">{{ stop.label }}</v-card-title>
      <v-card-text>
        <p>{{ stop.says.charAt(0).toUpperCase() }}{{ stop.says.slice(1) }}{{ /[.?!]$/.test(stop.says) ? '' : '.' }}<template v-if="stop.until">{{ ' ' }}{{ t('until_2', { until_when: untilWhen(stop.until) }) }}</template></p>
        <p v-if="!stop.by_hand && stop.state !== 'waiting'">{{ t('it_is_done_by_itself') }}</p>
        <form v-if="acts.length" id="step" @submit.prevent="say">
          <v-radio-group v-model="chosen" hide-details @keydown.enter.prevent="say">
            <v-radio v-for="one in acts" :key="one.act" :value="one.act" :label="one.label" />
          </v-radio-group>
          <v-text-field v-if="chosen === 'wait'" v-model="draft.until" class="field" type="datetime-local" :label="t('until_3')" :error-messages="faults.until" />
          <v-text-field
            v-if="chosen !== 'done'"
            v-model="draft.reason"
            class="field"
            :label="chosen === 'wait' ? t('what_it_waits_for') : t('why_kept_and_printed')"
            maxlength="500"
            autocomplete="off"
            :error-messages="faults.reason"
          />
          <p v-if="message && !faults.reason && !faults.until" class="fault" role="alert">{{ message }}</p>
        </form>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
        <v-btn v-if="acts.length" variant="flat" type="submit" form="step" :loading="isSending" :disabled="chosen === ''">{{ t('apply') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.field {
  margin-top: 12px;
}
.fault {
  margin-top: 8px;
}
.actions {
  padding: 8px 24px 20px;
}
</style>
