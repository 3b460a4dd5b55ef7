<script setup lang="ts">
/** A fleet at the door: what is common once, and a line for each that says only what differs. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILIES, type FleetBody } from '@/api'
import { useHouse } from '@/features/rail'
import { post, useOutbox } from '@/outbox'
import { ASKED, CLIMATES } from '@/shared/asked'
import FormDialog from '@/shared/FormDialog.vue'
import { useFormEntry } from '@/shared/entry'
import { useOffers } from './useOffers'
import { t } from '@/words/arrival'

interface Line {
  ticket: string
  serial: string
  size: string
  description: string
  left_handed: boolean
}

const isOpen = defineModel<boolean>({ required: true })
const house = useHouse()
const outbox = useOutbox()
const router = useRouter()

const freshLine = (): Line => ({ ticket: '', serial: '', size: '', description: '', left_handed: false })
const empty = () => ({
  common: {
    owner: '',
    contact: '',
    family: 'violin' as FleetBody['family'],
    size: '4/4',
    kind: '',
    complaint: '',
    climate: '' as '' | 'damp' | 'dry',
    deadline: '',
    promised: '',
    along: '',
    comes: [] as string[],
    recipe: '',
  },
  set_id: '',
  lines: [freshLine()],
})
/** One fleet, until it is on record: sent again after a lost answer it makes no second one. */
const { draft, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'fleet', of: () => '', empty })
const form = computed(() => draft.value.common)
const lines = computed(() => draft.value.lines)
const table = ref<HTMLElement | null>(null)
watch(isOpen, (open) => {
  if (open) begin()
}, { immediate: true })

const sizes = computed(() =>
  (house.choices?.sizes ?? []).filter((choice) => choice.family === form.value.family).map((choice) => choice.size),
)
/* What the forms offer may come after this was opened. */
watch(sizes, (known) => {
  if (known.length && !known.includes(form.value.size)) form.value.size = known[0] ?? ''
})
const { recipes, sets } = useOffers(isOpen, () => form.value.family)
watch(recipes, (known) => {
  if (!known.includes(form.value.recipe)) form.value.recipe = ''
})
watch(sets, (shelf) => {
  if (!shelf.some((one) => one.id === draft.value.set_id)) draft.value.set_id = ''
})

/** Enter in a line goes to the next, and makes one after the last. */
function nextLine(i: number): void {
  if (i === lines.value.length - 1) lines.value.push(freshLine())
  void nextTick(() => table.value?.querySelectorAll<HTMLInputElement>('input.first')[i + 1]?.focus())
}
function without(i: number): void {
  lines.value.splice(i, 1)
  if (!lines.value.length) lines.value.push(freshLine())
}

async function send(): Promise<void> {
  await sendEntry(async (id, { common, set_id, lines: typed }) => {
    const body: FleetBody = {
      id,
      ...common,
      deadline: common.deadline || null,
      promised: common.promised || null,
      recipe: common.recipe || null,
      set_id: set_id || null,
      freeze_days: 3,
      instruments: typed.map((line) => ({ ...line, complaint: '' })),
    }
    await outbox.submit(post('/api/fleets', { params: {}, body, words: t('fleet_instruments', { owner: common.owner, value: typed.length }) }))
    isOpen.value = false
    // At once: who goes on meanwhile is not called back.
    void router.push({ name: 'house' })
    void house.load()
  })
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('a_fleet_arrives')" :act="lines.length === 1 ? t('add_instrument') : t('add_instruments', { lines: lines.length })" :is-sending="isSending" :message="message" @send="send" @cancel="clear">
    <v-text-field v-model="form.owner" data-first :label="ASKED.owner" maxlength="500" />
    <v-text-field v-model="form.contact" :label="ASKED.contact" maxlength="500" />
    <v-select v-model="form.family" :label="t('family')" :items="FAMILIES" />
    <v-select v-model="form.size" :label="t('size_of_most')" :items="sizes" />
    <v-select v-model="form.kind" :label="ASKED.kind" :items="house.choices?.kinds ?? []" item-value="key" item-title="label" :error-messages="faults.kind" />
    <v-select v-model="form.recipe" :label="t('recipe_that_all_of_them')" :items="[{ value: '', title: t('the_shops_own') }, ...recipes.map((name) => ({ value: name, title: name }))]" :error-messages="faults.recipe" />
    <v-select v-model="draft.set_id" :label="t('strings_on_all_of_them')" :items="[{ value: '', title: t('not_known_yet') }, ...sets.map((one) => ({ value: one.id, title: `${one.name}, ${one.strings.map((string) => string.name).join(' ')}` }))]" :error-messages="faults.set_id" />
    <v-text-field v-model="form.complaint" class="wide" :label="ASKED.complaint" maxlength="20000" />
    <v-select v-model="form.climate" :label="ASKED.climate" :items="CLIMATES" />
    <v-text-field v-model="form.promised" type="date" :label="ASKED.promised" :error-messages="faults.promised" />
    <v-text-field v-model="form.along" :label="t('each_came_with')" maxlength="500" autocomplete="off" />
    <table ref="table" class="wide lines" :aria-label="t('a_line_for_each')">
      <thead>
        <tr><th>{{ t('ticket') }}</th><th>{{ t('serial_number') }}</th><th>{{ t('size') }}</th><th>{{ t('what_differs') }}</th><th>{{ t('left_handed') }}</th><th class="only-read">{{ t('take_the_line_out') }}</th></tr>
      </thead>
      <tbody>
        <tr v-for="(line, i) in lines" :key="i">
          <td><input v-model="line.ticket" class="first" :aria-label="t('ticket_of_line', { i: i + 1 })" maxlength="20" :placeholder="t('next_free')" @keydown.enter.prevent="nextLine(i)" /></td>
          <td><input v-model="line.serial" :aria-label="t('serial_number_of_line', { i: i + 1 })" maxlength="100" @keydown.enter.prevent="nextLine(i)" /></td>
          <td><input v-model="line.size" :aria-label="t('size_of_line', { i: i + 1 })" maxlength="20" :placeholder="form.size" @keydown.enter.prevent="nextLine(i)" /></td>
          <td class="differs"><input v-model="line.description" :aria-label="t('what_differs_in_line', { i: i + 1 })" maxlength="2000" @keydown.enter.prevent="nextLine(i)" /></td>
          <td class="check"><input v-model="line.left_handed" type="checkbox" :aria-label="t('line_is_left_handed', { i: i + 1 })" @keydown.enter.prevent="nextLine(i)" /></td>
          <td class="check"><button type="button" class="plain-button" :aria-label="t('take_line_out', { i: i + 1 })" @click="without(i)">×</button></td>
        </tr>
      </tbody>
    </table>
    <p class="wide how">{{ t('enter_goes_to_the_next') }}</p>
  </FormDialog>
</template>

<style scoped>
.lines {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
}
td {
  padding: 2px 6px 2px 0;
}
td input:not([type='checkbox']) {
  width: 100%;
  min-height: var(--hit);
  padding: 2px 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.differs {
  width: 32%;
}
.check {
  text-align: center;
}
.check input {
  width: 20px;
  height: 20px;
  accent-color: var(--action);
}
.check button {
  min-width: var(--hit);
  min-height: var(--hit);
  text-align: center;
  font-size: var(--type-target);
}
.how {
  margin: 0;
  color: var(--quiet);
}
</style>
