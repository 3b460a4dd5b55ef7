<script setup lang="ts">
/** An instrument at the door: a new one, or one that has been here and is found while typing. */
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, Refused, type ArrivalBody, type KnownView } from '@/api'
import { post, useOutbox, type Act } from '@/outbox'
import { ASKED, CLIMATES } from '@/shared/asked'
import FormDialog from '@/shared/FormDialog.vue'
import { ago } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useHouse } from '@/features/rail'
import { FAMILIES } from './families'
import { t } from '@/words/arrival'

const isOpen = defineModel<boolean>({ required: true })
const house = useHouse()
const outbox = useOutbox()
const router = useRouter()

const fresh = () => ({
  ticket: '',
  family: 'violin' as ArrivalBody['family'],
  size: '4/4',
  names: '',
  left_handed: false,
  opposite_build: false,
  is_new: false,
  is_fleet: false,
  size_without_figures: false,
  owner: '',
  description: '',
  complaint: '',
  contact: '',
  plays: '',
  label_read: '',
  believed: '',
  worth: '',
  left_as_found: '',
  serial: '',
})
const freshVisit = () => ({ climate: '' as '' | 'damp' | 'dry', deadline: '', freeze_days: '3', promised: '', along: '' })
const form = reactive(fresh())
const visit = reactive(freshVisit())
const words = ref('')
const known = ref<KnownView[]>([])
/** The one that comes back; null for a new one. */
const again = ref<KnownView | null>(null)
/** Of this arrival, until it is on record: sent again after a lost answer it makes no second one. */
let id = freshId()
watch(again, () => (id = freshId()))
const kind = ref('bridge')
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
  [() => form.family, () => stringings.value.length],
  () => {
    form.size = sizes.value[0] ?? ''
    form.size_without_figures = false
    form.names = stringings.value[0] ?? ''
  },
)

let asked = 0
watch(words, async (typed) => {
  const mine = ++asked
  again.value = null
  if (typed.trim() === '') {
    known.value = []
    return
  }
  try {
    const found = await answerOf(api.GET('/api/known', { params: { query: { words: typed } } }))
    if (mine === asked) known.value = found
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === asked) known.value = []
  }
})
watch(isOpen, (open) => {
  if (open) words.value = ''
})

async function pick(entry: KnownView): Promise<void> {
  if (entry.in_house) {
    isOpen.value = false
    await router.push({ name: 'bench', params: { ticket: entry.ticket } })
    return
  }
  again.value = entry
}

/** What is entered at the door; the ticket is the server's to give. */
function arrival(): Act {
  const asked = {
    id,
    kind: kind.value,
    climate: visit.climate,
    deadline: visit.deadline || null,
    freeze_days: Number(visit.freeze_days || 0),
    promised: visit.promised || null,
    along: visit.along,
  }
  if (again.value) {
    const path = { ticket: again.value.ticket }
    const body = { ...asked, complaint: form.complaint }
    return post('/api/instruments/{ticket}/visits', { params: { path }, body, words: t('comes_again', { ticket: path.ticket }) })
  }
  const { names, ...rest } = form
  const body: ArrivalBody = {
    ...rest,
    ...asked,
    string_names: (names || stringings.value[0] || '').split(/[\s,]+/).filter(Boolean),
  }
  return post('/api/instruments', { params: {}, body, words: t('new_arrival', { family: form.family, size: form.size, owner: form.owner }) })
}

async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  faults.value = {}
  message.value = ''
  try {
    const done = await outbox.submit(arrival())
    Object.assign(form, fresh(), { names: stringings.value[0] ?? '' })
    Object.assign(visit, freshVisit())
    isOpen.value = false
    // At once: who goes on meanwhile is not called back.
    if (done.sent) void router.push({ name: 'bench', params: { ticket: (done.answer as { ticket: string }).ticket } })
    await house.load()
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
  <FormDialog v-model="isOpen" :title="t('new_arrival_2')" :act="t('add_instrument')" :is-sending="isSending" :message="message" @send="send">
    <v-text-field v-model="words" class="wide" data-first :label="t('has_it_been_here_ticket')" autocomplete="off" maxlength="80" />
    <ul v-if="known.length && !again" class="wide known" :aria-label="t('has_been_here')">
      <li v-for="entry in known" :key="entry.ticket">
        <button type="button" class="plain-button" @click="pick(entry)">
          <b>{{ entry.ticket }}</b> {{ entry.family }} {{ entry.size }}, {{ entry.owner }} · {{ entry.in_house ? t('hangs_on_the_rail') : t('here', { ago: ago(entry.last_opened) }) }}<template v-if="entry.last_complaint">: “{{ entry.last_complaint }}”</template>
        </button>
      </li>
    </ul>
    <p v-else-if="words.trim() && !again" class="wide none">{{ t('nothing_here_has_been_known', { trim: words.trim() }) }}</p>
    <p v-if="again" class="wide again">
      <b>{{ again.ticket }}</b> {{ t('here_it_opens_with_last', { family: again.family, size: again.size, owner: again.owner, ago: ago(again.last_opened) }) }}
      <v-btn size="small" @click="again = null">{{ t('another') }}</v-btn>
    </p>
    <v-select v-model="kind" :label="ASKED.kind" :items="house.choices?.kinds ?? []" item-value="key" item-title="label" />
    <v-textarea v-model="form.complaint" rows="1" max-rows="8" auto-grow :label="ASKED.complaint" maxlength="20000" :error-messages="faults.complaint" @keydown.enter.exact.prevent="send" />
    <template v-if="!again">
    <v-select v-model="form.family" :label="t('family')" :items="FAMILIES" />
    <v-combobox v-model="form.size" :label="t('size_or_the_bodys_length')" :items="sizes" maxlength="20" :error-messages="faults.size" />
    <v-checkbox v-if="faults.size || form.size_without_figures" v-model="form.size_without_figures" class="wide" :label="t('take_it_in_without_figures')" />
    <v-combobox
      v-model="form.names"
      :label="t('strings_lowest_first')"
      :items="stringings"
      :error-messages="faults.string_names"
    />
    <v-text-field
      v-model="form.ticket"
      :label="t('ticket')"
      :placeholder="house.choices?.next_ticket"
      persistent-placeholder
      maxlength="20"
      :error-messages="faults.ticket"
    />
    <v-text-field v-model="form.owner" :label="ASKED.owner" maxlength="500" :error-messages="faults.owner" />
    <v-text-field v-model="form.description" class="wide" :label="ASKED.description" maxlength="500" />
    <v-checkbox v-model="form.left_handed" :label="ASKED.left_handed" />
    <v-checkbox v-model="form.opposite_build" :label="ASKED.opposite_build" />
    <v-checkbox v-model="form.is_new" :label="ASKED.is_new" />
    <v-checkbox v-model="form.is_fleet" :label="ASKED.is_fleet" />
    </template>
    <v-text-field v-model="visit.along" class="wide" :label="t('what_came_along')" :placeholder="t('case_2_bows_shoulder_rest')" maxlength="500" autocomplete="off" />
    <v-text-field v-model="visit.deadline" type="date" :label="ASKED.deadline" :error-messages="faults.deadline" />
    <v-text-field v-model="visit.freeze_days" inputmode="numeric" :label="ASKED.freeze_days" :error-messages="faults.freeze_days" />
    <v-text-field v-model="visit.promised" type="date" :label="ASKED.promised" :error-messages="faults.promised" />
    <v-select v-model="visit.climate" :label="ASKED.climate" :items="CLIMATES" />
    <template v-if="!again">
      <v-text-field v-model="form.contact" :label="ASKED.contact" maxlength="500" />
      <v-text-field v-model="form.plays" :label="ASKED.plays" maxlength="500" />
      <v-text-field v-model="form.serial" :label="ASKED.serial" maxlength="100" :error-messages="faults.serial" />
      <v-text-field v-model="form.label_read" :label="ASKED.label_read" maxlength="500" />
      <v-text-field v-model="form.believed" :label="ASKED.believed" maxlength="500" />
      <v-text-field v-model="form.worth" :label="ASKED.worth" maxlength="80" />
      <v-text-field v-model="form.left_as_found" :label="ASKED.left_as_found" maxlength="500" />
    </template>
  </FormDialog>
</template>

<style scoped>
.known {
  max-height: 184px;
  overflow-y: auto;
  list-style: none;
  margin: 0;
  padding: 0;
}
.known button {
  width: 100%;
  min-height: var(--hit);
  border-top: 1px solid var(--hairline);
}
.none,
.again {
  margin: 0;
}
</style>
