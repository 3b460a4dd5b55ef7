<script setup lang="ts">
/** What is known of an instrument and of this visit, changed after it came in; what somebody else wrote meanwhile is shown. */
import { computed, reactive, ref, watch } from 'vue'
import { answerOf, api, Refused, type BenchSheet, type Choices } from '@/api'
import { useBench } from '@/features/bench'

const props = defineProps<{ sheet: BenchSheet; kinds: Choices['kinds'] }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ changed: [] }>()
const bench = useBench()

type Kind = 'words' | 'story' | 'day' | 'days' | 'yes' | 'climate' | 'kind'
const FIELDS: { name: string; label: string; kind: Kind }[] = [
  { name: 'kind', label: 'What for', kind: 'kind' },
  { name: 'complaint', label: "Why it came, in the owner's words", kind: 'story' },
  { name: 'owner', label: 'Owner or fleet', kind: 'words' },
  { name: 'contact', label: 'How to reach the owner', kind: 'words' },
  { name: 'plays', label: 'What they play, their words for sound', kind: 'story' },
  { name: 'description', label: 'Anything else worth knowing', kind: 'story' },
  { name: 'deadline', label: 'Needed for, an audition or concert', kind: 'day' },
  { name: 'freeze_days', label: 'Days before it without risky work', kind: 'days' },
  { name: 'promised', label: 'Promised for', kind: 'day' },
  { name: 'climate', label: 'It comes from', kind: 'climate' },
  { name: 'label_read', label: 'Label, as it reads', kind: 'words' },
  { name: 'believed', label: 'What the luthier believes', kind: 'words' },
  { name: 'worth', label: 'Value', kind: 'words' },
  { name: 'left_as_found', label: 'What is left as found, and why', kind: 'story' },
  { name: 'is_fleet', label: 'belongs to a fleet that is hired out', kind: 'yes' },
  { name: 'is_new', label: 'new instrument', kind: 'yes' },
  { name: 'left_handed', label: 'left-handed', kind: 'yes' },
]
const CLIMATES = [
  { value: '', title: 'nothing out of the way' },
  { value: 'damp', title: 'a damp place' },
  { value: 'dry', title: 'a dry place' },
]

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
      answerOf(api.PATCH('/api/instruments/{ticket}/particulars', { params: { path: { ticket } }, body: { changes } })),
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
  <v-dialog v-model="isOpen">
    <v-card>
      <form @submit.prevent="keep">
        <v-card-title tag="h2">{{ sheet.instrument.ticket }}, particulars</v-card-title>
        <v-card-text class="fields">
          <template v-for="(field, i) in FIELDS" :key="field.name">
            <v-select v-if="field.kind === 'kind'" v-model="form[field.name]" :label="field.label" :items="kinds" item-value="key" item-title="label" :error-messages="faults[field.name]" />
            <v-select v-else-if="field.kind === 'climate'" v-model="form[field.name]" :label="field.label" :items="CLIMATES" :error-messages="faults[field.name]" />
            <v-checkbox v-else-if="field.kind === 'yes'" v-model="form[field.name]" true-value="yes" false-value="no" :label="field.label" />
            <v-textarea v-else-if="field.kind === 'story'" v-model="form[field.name]" class="wide" rows="1" max-rows="8" auto-grow :autofocus="i === 1" maxlength="20000" :label="field.label" :error-messages="faults[field.name]" />
            <v-text-field v-else v-model="form[field.name]" :type="field.kind === 'day' ? 'date' : 'text'" :inputmode="field.kind === 'days' ? 'numeric' : undefined" maxlength="500" :label="field.label" :error-messages="faults[field.name]" />
          </template>
          <p v-if="message" class="wide fault" role="alert">{{ message }}</p>
        </v-card-text>
        <v-card-actions class="actions">
          <v-btn @click="isOpen = false">Not now</v-btn>
          <v-btn type="submit" variant="flat" :loading="isSending">Keep it</v-btn>
        </v-card-actions>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.wide {
  grid-column: 1 / -1;
}
form {
  overflow-y: auto;
}
.fault {
  margin: 0;
  color: var(--error);
  font-weight: 700;
}
.actions {
  position: sticky;
  bottom: 0;
  z-index: 1;
  background: var(--sheet);
  padding: 12px 24px 20px;
  gap: 8px;
}
@media (max-width: 640px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
