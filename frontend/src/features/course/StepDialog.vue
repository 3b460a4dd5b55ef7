<script setup lang="ts">
/** One step of the course: what it is for, and what somebody can say of it. */
import { computed, ref, watch } from 'vue'
import { Refused, type Stop } from '@/api'
import { post } from '@/outbox'
import { useBench } from '@/features/bench'
import { focusChosenInDialog } from '@/shared/focus'
import { until as untilWhen } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/course'

type Act = 'done' | 'pass-over' | 'wait' | 'go-on'

const props = defineProps<{ stop: Stop | null }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()
const atBench = useAtBench()

const chosen = ref<Act | ''>('')
const reason = ref('')
const until = ref('')
const faults = ref<Record<string, string>>({})
const message = ref('')
const isSending = ref(false)

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
  if (!open) return
  chosen.value = acts.value[0]?.act ?? ''
  reason.value = ''
  until.value = ''
  faults.value = {}
  message.value = ''
})

async function say(): Promise<void> {
  const step = props.stop?.key
  const act = chosen.value
  if (!step || act === '' || isSending.value) return
  isSending.value = true
  faults.value = {}
  message.value = ''
  const id = freshId()
  const why = reason.value
  const words = `${props.stop?.label ?? step}: ${acts.value.find((one) => one.act === act)?.label ?? act}`
  try {
    await bench.submit((ticket) => {
      const params = { path: { ticket, step } }
      if (act === 'done') return post('/api/instruments/{ticket}/steps/{step}/done', { params, body: { id }, words })
      if (act === 'wait') {
        const time = until.value ? new Date(until.value).toISOString() : ''
        return post('/api/instruments/{ticket}/steps/{step}/wait', { params, body: { id, reason: why, until: time }, words })
      }
      const path = act === 'go-on' ? '/api/instruments/{ticket}/steps/{step}/go-on' : '/api/instruments/{ticket}/steps/{step}/pass-over'
      return post(path, { params, body: { id, reason: why }, words })
    })
    isOpen.value = false
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    faults.value = error.fields
    message.value = error.message
  } finally {
    isSending.value = false
  }
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
          <v-text-field v-if="chosen === 'wait'" v-model="until" class="field" type="datetime-local" :label="t('until_3')" :error-messages="faults.until" />
          <v-text-field
            v-if="chosen !== 'done'"
            v-model="reason"
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
        <v-btn @click="isOpen = false">{{ t('cancel') }}</v-btn>
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
