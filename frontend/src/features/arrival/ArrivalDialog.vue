<script setup lang="ts">
/** An instrument at the door: a new one, or one that has been here and is found while typing. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILIES, answerOf, api, Refused, type ArrivalBody, type KnownView } from '@/api'
import { post, useOutbox, type Act } from '@/outbox'
import { ASKED, CLIMATES } from '@/shared/asked'
import FormDialog from '@/shared/FormDialog.vue'
import { ago } from '@/shared/format'
import { useFormEntry } from '@/shared/entry'
import { useHouse } from '@/features/rail'
import { t } from '@/words/arrival'

const isOpen = defineModel<boolean>({ required: true })
const house = useHouse()
const outbox = useOutbox()
const router = useRouter()

const empty = () => ({
  instrument: {
    ticket: '',
    family: 'violin' as ArrivalBody['family'],
    size: sizesOf('violin')[0] ?? '4/4',
    names: stringingsOf('violin')[0] ?? '',
    left_handed: false,
    opposite_build: false,
    is_new: false,
    is_fleet: false,
    size_without_figures: false,
    owner: '',
    description: '',
    contact: '',
    plays: '',
    label_read: '',
    believed: '',
    worth: '',
    left_as_found: '',
    serial: '',
  },
  /* What it comes for is chosen each time: nobody gets the type of the one before. */
  visit: { kind: '', complaint: '', climate: '' as '' | 'damp' | 'dry', deadline: '', freeze_days: '3', promised: '', along: '', comes: [] as string[] },
})
/** One arrival, until it is on record: sent again after a lost answer it makes no second one. */
const { draft, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'arrival', of: () => '', empty })
const form = computed(() => draft.value.instrument)
const visit = computed(() => draft.value.visit)
const words = ref('')
const known = ref<KnownView[]>([])
/** The one that comes back; null for a new one. */
const again = ref<KnownView | null>(null)

/** In pieces: what is put right before anything is read. */
const COMES = [
  { value: 'strings_off', title: t('strings_off') },
  { value: 'bridge_down', title: t('bridge_down') },
  { value: 'post_fallen', title: t('post_fallen') },
]
const sizesOf = (family: string) => (house.choices?.sizes ?? []).filter((choice) => choice.family === family).map((choice) => choice.size)
const stringingsOf = (family: string) => (house.choices?.stringings ?? []).filter((choice) => choice.family === family).map((choice) => choice.names.join(' '))
const sizes = computed(() => sizesOf(form.value.family))
const stringings = computed(() => stringingsOf(form.value.family))
function setFamily(family: ArrivalBody['family']): void {
  Object.assign(form.value, { family, size: sizesOf(family)[0] ?? '', size_without_figures: false, names: stringingsOf(family)[0] ?? '' })
}
/* What the forms offer may come after this was opened. */
watch(() => stringings.value.length, () => {
  if (!form.value.names) form.value.names = stringings.value[0] ?? ''
})

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
  if (!open) return
  words.value = ''
  again.value = null
  begin()
}, { immediate: true })

async function pick(entry: KnownView): Promise<void> {
  if (entry.in_house) {
    isOpen.value = false
    await router.push({ name: 'bench', params: { ticket: entry.ticket } })
    return
  }
  again.value = entry
}

/** What is entered at the door; the ticket is the server's to give. */
function arrival(id: string, typed: ReturnType<typeof empty>, ticket: string): Act {
  const { deadline, promised, freeze_days, ...rest } = typed.visit
  const asked = { ...rest, id, deadline: deadline || null, promised: promised || null, freeze_days: Number(freeze_days || 0) }
  if (ticket) return post('/api/instruments/{ticket}/visits', { params: { path: { ticket } }, body: asked, words: t('comes_again', { ticket }) })
  const { names, ...instrument } = typed.instrument
  const body: ArrivalBody = { ...instrument, ...asked, string_names: (names || stringings.value[0] || '').split(/[\s,]+/).filter(Boolean) }
  return post('/api/instruments', { params: {}, body, words: t('new_arrival', instrument) })
}

async function send(): Promise<void> {
  const ticket = again.value?.ticket ?? ''
  await sendEntry(async (id, typed) => {
    const done = await outbox.submit(arrival(id, typed, ticket))
    isOpen.value = false
    // At once: who goes on meanwhile is not called back.
    if (done.sent) void router.push({ name: 'bench', params: { ticket: (done.answer as { ticket: string }).ticket } })
    void house.load()
  })
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('new_arrival_2')" :act="t('add_instrument')" :is-sending="isSending" :message="message" @send="send" @cancel="clear">
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
    <v-select v-model="visit.kind" :label="ASKED.kind" :items="house.choices?.kinds ?? []" item-value="key" item-title="label" :error-messages="faults.kind" />
    <v-textarea v-model="visit.complaint" rows="1" max-rows="8" auto-grow :label="ASKED.complaint" maxlength="20000" :error-messages="faults.complaint" @keydown.enter.exact.prevent="send" />
    <template v-if="!again">
    <v-select :model-value="form.family" :label="t('family')" :items="FAMILIES" @update:model-value="setFamily" />
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
    <v-select v-model="visit.comes" class="wide" multiple :label="t('how_it_comes')" :items="COMES" :error-messages="faults.comes" />
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
