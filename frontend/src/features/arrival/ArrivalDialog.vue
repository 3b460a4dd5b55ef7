<script setup lang="ts">
/** A new instrument at the door. */
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, Refused, type ArrivalBody } from '@/api'
import { useHouse } from '@/features/rail'

const isOpen = defineModel<boolean>({ required: true })
const house = useHouse()
const router = useRouter()

const FAMILIES: ArrivalBody['family'][] = ['violin', 'viola', 'cello', 'bass']
const fresh = () => ({
  ticket: '',
  family: 'violin' as ArrivalBody['family'],
  size: '4/4',
  names: '',
  left_handed: false,
  is_new: false,
  owner: '',
  description: '',
  complaint: '',
})
const form = reactive(fresh())
const faults = ref<Record<string, string>>({})
const message = ref('')
const isSending = ref(false)

const sizes = computed(() =>
  (house.choices?.sizes ?? []).filter((choice) => choice.family === form.family).map((choice) => choice.size),
)
const stringings = computed(() =>
  (house.choices?.stringings ?? [])
    .filter((choice) => choice.family === form.family)
    .map((choice) => choice.names.join(' ')),
)
watch(
  () => [form.family, stringings.value.length],
  () => {
    form.size = sizes.value[0] ?? ''
    form.names = stringings.value[0] ?? ''
  },
)

async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  faults.value = {}
  message.value = ''
  const { names, ...rest } = form
  const body: ArrivalBody = {
    ...rest,
    string_names: (names || stringings.value[0] || '').split(/[\s,]+/).filter(Boolean),
    kind: 'bridge',
  }
  try {
    const { ticket } = await answerOf(api.POST('/api/instruments', { body }))
    Object.assign(form, fresh(), { names: stringings.value[0] ?? '' })
    isOpen.value = false
    await house.load()
    await router.push({ name: 'bench', params: { ticket } })
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
  <v-dialog v-model="isOpen">
    <v-card>
      <form @submit.prevent="send">
        <v-card-title tag="h2">New arrival</v-card-title>
        <v-card-text class="fields">
          <v-select v-model="form.family" autofocus label="Family" :items="FAMILIES" />
          <v-select v-model="form.size" label="Size" :items="sizes" :error-messages="faults.size" />
          <v-combobox
            v-model="form.names"
            label="Strings, lowest first"
            :items="stringings"
            :error-messages="faults.string_names"
          />
          <v-text-field
            v-model="form.ticket"
            label="Ticket"
            :placeholder="house.choices?.next_ticket"
            persistent-placeholder
            maxlength="20"
            :error-messages="faults.ticket"
          />
          <v-text-field v-model="form.owner" label="Owner or fleet" maxlength="500" :error-messages="faults.owner" />
          <v-text-field v-model="form.complaint" label="Why it came, in the owner's words" maxlength="500" />
          <v-text-field v-model="form.description" class="wide" label="Anything else worth knowing" maxlength="500" />
          <v-checkbox v-model="form.left_handed" label="left-handed" />
          <v-checkbox v-model="form.is_new" label="new instrument" />
          <p v-if="message" class="wide fault" role="alert">{{ message }}</p>
        </v-card-text>
        <v-card-actions class="actions">
          <v-btn @click="isOpen = false">Not now</v-btn>
          <v-btn type="submit" variant="flat" :loading="isSending">Take it in</v-btn>
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
.fault {
  margin: 0;
  color: var(--error);
  font-weight: 700;
}
.actions {
  padding: 12px 24px 20px;
  gap: 8px;
}
form {
  overflow-y: auto;
}
@media (max-width: 640px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
