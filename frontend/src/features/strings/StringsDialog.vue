<script setup lang="ts">
/** Which strings are on it: a set from the shelf, or diameters of one that is not there yet. */
import { computed, ref, watch } from 'vue'
import { answerOf, api, Refused, type BenchSheet, type SetView, type StringsView } from '@/api'
import { useBench } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { focusChosenInDialog } from '@/shared/focus'
import { useFormEntry } from '@/shared/entry'
import FormDialog from '@/shared/FormDialog.vue'
import { plain } from '@/shared/format'
import { t } from '@/words/strings'

/** change : it opens to say that strings were changed just now. */
const props = defineProps<{ sheet: BenchSheet; change?: boolean }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()
const house = useHouse()

const OWN = 'own'
const sets = ref<SetView[]>([])
const steps = ref<StringsView['steps']>([])
const isLoading = ref(false)
const ticket = computed(() => props.sheet.instrument.ticket)
/** Of the form: positions, none for all; hours a week as they are known, null until they are; by which way it was opened. */
const empty = () => ({
  chosen: '',
  put_on_now: props.change ?? false,
  opened_to_change: props.change ?? false,
  own: { name: '', material: 'synthetic', diameters: [] as string[], tensions: [] as string[] },
  positions: [] as number[],
  since: '',
  hours: null as string | null,
  fate: '' as '' | 'spare' | 'given_on' | 'discarded',
})
const { draft, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'strings', of: () => ticket.value, empty })
/** As they are known; what is typed meanwhile stands. */
const known = ref({ chosen: '', hours: '' })
const chosen = computed({ get: () => draft.value.chosen || known.value.chosen, set: (id) => (draft.value.chosen = id) })
const hours = computed({ get: () => draft.value.hours ?? known.value.hours, set: (text) => (draft.value.hours = text) })
const FATES = [
  { title: t('not_said'), value: '' },
  { title: t('kept_as_a_spare'), value: 'spare' },
  { title: t('given_on'), value: 'given_on' },
  { title: t('thrown_away'), value: 'discarded' },
]
const loading = ref('')
let asked = 0
watch(
  isOpen,
  async (open) => {
    if (!open) return
    begin()
    if (draft.value.opened_to_change !== (props.change ?? false)) {
      // Opened the other way, what was typed stays, and the tick is that of this way.
      draft.value.put_on_now = draft.value.opened_to_change = props.change ?? false
    }
    const mine = ++asked
    known.value = { chosen: '', hours: '' }
    loading.value = ''
    isLoading.value = true
    const at = { params: { path: { ticket: ticket.value } } }
    try {
      const [shelf, told] = await Promise.all([
        answerOf(api.GET('/api/instruments/{ticket}/string-sets', at)),
        answerOf(api.GET('/api/instruments/{ticket}/strings', at)),
      ])
      if (mine !== asked) return
      sets.value = shelf
      const onIt = shelf.find((set) => set.id === props.sheet.strings?.id)
      known.value = { chosen: onIt?.id ?? shelf[0]?.id ?? OWN, hours: told.hours_a_week === null ? '' : String(told.hours_a_week) }
      steps.value = told.steps
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) loading.value = error.message
    } finally {
      if (mine === asked) {
        isLoading.value = false
        focusChosenInDialog()
      }
    }
  },
  { immediate: true },
)

const forEach = (typed: string[]) => props.sheet.instrument.string_names.map((_, i) => typed[i] ?? '')
async function send(): Promise<void> {
  const isOwn = chosen.value === OWN
  const [set_id, hours_a_week] = [chosen.value, hours.value]
  const isSent = await sendEntry((id, typed) =>
    bench.nameStrings(id, {
      set_id: isOwn ? null : set_id,
      own: isOwn ? { ...typed.own, diameters: forEach(typed.own.diameters), tensions: forEach(typed.own.tensions) } : null,
      put_on_now: typed.put_on_now,
      positions: typed.positions,
      since: typed.put_on_now || !typed.since ? null : typed.since,
      hours_a_week,
      fate: typed.put_on_now ? typed.fate : '',
    }),
    () => (isOpen.value = false),
  )
  if (isSent) void house.load()
}
</script>

<template>
  <FormDialog
    v-model="isOpen"
    :title="t('which_strings_are_on_it')"
    :act="t('these_strings')"
    :is-sending="isSending"
    :message="message || loading"
    @send="send"
    @cancel="clear"
    @after-enter="focusChosenInDialog"
  >
    <v-progress-linear v-if="isLoading" class="wide" indeterminate color="primary" />
    <v-radio-group v-else v-model="chosen" class="wide" hide-details :aria-label="t('set_of_strings')">
      <v-radio v-for="set in sets" :key="set.id" :value="set.id">
        <template #label>
          <span class="set"><b>{{ set.name }}</b> <span>{{ set.material }}</span>
            <span v-for="string in set.strings" :key="string.name">{{ string.name }} {{ plain(string.diameter) }}</span>
          </span>
        </template>
      </v-radio>
      <v-radio :value="OWN" :label="t('another_set_type_its_diameters')" />
    </v-radio-group>
    <template v-if="chosen === OWN">
      <v-text-field v-model="draft.own.name" :label="t('name_of_the_set')" maxlength="80" :error-messages="faults.name" />
      <v-select v-model="draft.own.material" :label="t('material')" :items="house.choices?.materials ?? []" />
      <div class="wide each" :style="{ gridTemplateRows: `repeat(${sheet.instrument.string_names.length}, auto)` }">
        <v-text-field
          v-for="(name, i) in sheet.instrument.string_names"
          :key="name"
          v-model="draft.own.diameters[i]"
          :label="t('diameter_in_mm', { name })"
          inputmode="decimal"
          maxlength="40"
          :error-messages="faults[`diameters.${i}`]"
        />
        <v-text-field
          v-for="(name, i) in sheet.instrument.string_names"
          :key="`${name} N`"
          v-model="draft.own.tensions[i]"
          :label="t('tension_in_n_if_it', { name })"
          inputmode="decimal"
          maxlength="40"
          :error-messages="faults[`tensions.${i}`]"
        />
      </div>
    </template>
    <v-checkbox v-model="draft.put_on_now" class="wide" hide-details :label="t('they_were_put_on_just')" />
    <ul v-if="draft.put_on_now" class="wide steps" :aria-label="t('while_they_go_on')">
      <li v-for="step in steps" :key="step.says" :class="step.kind">{{ step.says }}<template v-if="step.kind !== 'do'">: {{ step.because }}</template></li>
    </ul>
    <fieldset class="wide which">
      <legend>{{ t('all_of_them_or_only') }}</legend>
      <label v-for="(name, i) in sheet.instrument.string_names" :key="name"><input v-model="draft.positions" type="checkbox" :value="i" />{{ name }}</label>
    </fieldset>
    <p v-if="faults.positions" class="wide fault" role="alert">{{ faults.positions }}</p>
    <v-select v-if="draft.put_on_now" v-model="draft.fate" :label="t('those_that_came_off')" :items="FATES" />
    <v-text-field v-else v-model="draft.since" type="date" :label="t('on_it_since_if_it')" :error-messages="faults.since" />
    <v-text-field v-model="hours" :label="t('played_hours_a_week')" inputmode="decimal" maxlength="20" :error-messages="faults.hours_a_week" />
  </FormDialog>
</template>

<style scoped>
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding: 4px 0;
}
/* A string's diameter and tension stand beside each other; Tab goes through the diameters first. */
.each {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  align-items: start;
  gap: 14px;
}
.steps {
  margin: 0 0 8px;
  padding-left: 18px;
}
.steps .caution {
  padding: 4px 10px;
  border-left: 5px solid var(--above);
  background: var(--note);
}
.which {
  padding: 0;
  border: 0;
}
.which label {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: var(--hit);
  margin-right: 18px;
}
.which input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
</style>
