<script setup lang="ts">
/** What is known of an instrument and of this visit, changed after it came in; what somebody else wrote meanwhile is shown. */
import { computed, reactive, ref, watch } from 'vue'
import { Refused, type BenchSheet, type Choices } from '@/api'
import { patch } from '@/outbox'
import { useBench } from '@/features/bench'
import { ASKED, CLIMATES } from '@/shared/asked'
import FormDialog from '@/shared/FormDialog.vue'
import { t } from '@/words/particulars'

const props = defineProps<{ sheet: BenchSheet; kinds: Choices['kinds'] }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ changed: [] }>()
const bench = useBench()

type Kind = 'words' | 'story' | 'day' | 'days' | 'yes' | 'climate' | 'kind'
const KINDS: Record<keyof typeof ASKED, Kind> = {
  kind: 'kind',
  complaint: 'story',
  owner: 'words',
  contact: 'words',
  plays: 'story',
  description: 'story',
  deadline: 'day',
  freeze_days: 'days',
  promised: 'day',
  climate: 'climate',
  serial: 'words',
  label_read: 'words',
  believed: 'words',
  worth: 'words',
  left_as_found: 'story',
  is_fleet: 'yes',
  is_new: 'yes',
  left_handed: 'yes',
  opposite_build: 'yes',
}
const FIELDS = (Object.keys(KINDS) as (keyof typeof ASKED)[]).map((name) => ({ name, label: ASKED[name], kind: KINDS[name] }))

/** What stands on the sheet now, as text. */
const stands = computed<Record<string, string>>(() => {
  const told = props.sheet.instrument
  const yes = (is: boolean) => (is ? 'yes' : 'no')
  return {
    ...told.asked,
    kind: told.visit_kind,
    complaint: told.complaint,
    owner: told.owner,
    description: told.description,
    deadline: told.deadline ?? '',
    freeze_days: String(told.freeze_days),
    promised: told.promised ?? '',
    climate: told.climate,
    is_fleet: yes(told.is_fleet),
    is_new: yes(told.is_new),
    left_handed: yes(told.left_handed),
    opposite_build: yes(told.opposite_build),
  }
})
/** What stood there when this was opened, or was last shown to whoever writes. */
const was = ref<Record<string, string>>({})
const form = reactive<Record<string, string>>({})
const faults = ref<Record<string, string>>({})
const message = ref('')
const isSending = ref(false)

watch(isOpen, (open) => {
  if (!open) return
  was.value = { ...stands.value }
  Object.assign(form, stands.value)
  faults.value = {}
  message.value = ''
})

async function keep(): Promise<void> {
  if (isSending.value) return
  const changes = FIELDS.map(({ name }) => ({ field: name, was: was.value[name] ?? '', now: form[name] ?? '' })).filter(
    (change) => change.was !== change.now,
  )
  if (!changes.length) {
    isOpen.value = false
    return
  }
  isSending.value = true
  faults.value = {}
  message.value = ''
  try {
    await bench.submit((ticket) =>
      patch('/api/instruments/{ticket}/particulars', { params: { path: { ticket } }, body: { changes }, words: t('particulars') }),
    )
    isOpen.value = false
    emit('changed')
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    faults.value = error.fields
    message.value = error.message
    if (error.status === 409) {
      // Whoever writes has seen the other's words now: the next time they stand as known.
      await bench.refresh()
      for (const name of Object.keys(error.fields)) was.value[name] = stands.value[name] ?? ''
    }
  } finally {
    isSending.value = false
  }
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('particulars_2', { ticket: sheet.instrument.ticket })" :act="t('save')" :is-sending="isSending" :message="message" @send="keep">
    <template v-for="field in FIELDS" :key="field.name">
      <v-select v-if="field.kind === 'kind'" v-model="form[field.name]" :label="field.label" :items="kinds" item-value="key" item-title="label" :error-messages="faults[field.name]" />
      <v-select v-else-if="field.kind === 'climate'" v-model="form[field.name]" :label="field.label" :items="CLIMATES" :error-messages="faults[field.name]" />
      <v-checkbox v-else-if="field.kind === 'yes'" v-model="form[field.name]" true-value="yes" false-value="no" :label="field.label" />
      <v-textarea v-else-if="field.kind === 'story'" v-model="form[field.name]" class="wide" rows="1" max-rows="8" auto-grow :data-first="field.name === 'complaint' ? '' : undefined" maxlength="20000" :label="field.label" :error-messages="faults[field.name]" />
      <v-text-field v-else v-model="form[field.name]" :type="field.kind === 'day' ? 'date' : 'text'" :inputmode="field.kind === 'days' ? 'numeric' : undefined" maxlength="500" :label="field.label" :error-messages="faults[field.name]" />
    </template>
  </FormDialog>
</template>
