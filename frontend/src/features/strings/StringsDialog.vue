<script setup lang="ts">
/** Which strings are on it: a set from the shelf, or diameters of one that is not there yet. */
import { computed, reactive, ref, watch } from 'vue'
import { answerOf, api, Refused, type BenchSheet, type SetView, type StringsView } from '@/api'
import { useBench } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { focusChosenInDialog } from '@/shared/focus'
import FormDialog from '@/shared/FormDialog.vue'
import { plain } from '@/shared/format'
import { t } from '@/words/strings'

const props = defineProps<{ sheet: BenchSheet }>()
const isOpen = defineModel<boolean>({ required: true })
const bench = useBench()
const house = useHouse()

const OWN = 'own'
const sets = ref<SetView[]>([])
const steps = ref<StringsView['steps']>([])
const isLoading = ref(false)
const chosen = ref('')
const putOnNow = ref(false)
const own = reactive({ name: '', material: 'synthetic', diameters: [] as string[], tensions: [] as string[] })
/** Which of them; none is all. */
const positions = ref<number[]>([])
const since = ref('')
const hours = ref('')
const fate = ref<'' | 'spare' | 'given_on' | 'discarded'>('')
const FATES = [
  { title: t('not_said'), value: '' },
  { title: t('kept_as_a_spare'), value: 'spare' },
  { title: t('given_on'), value: 'given_on' },
  { title: t('thrown_away'), value: 'discarded' },
]
const faults = ref<Record<string, string>>({})
const message = ref('')
const isSending = ref(false)

const ticket = computed(() => props.sheet.instrument.ticket)

watch(
  isOpen,
  async (open) => {
    if (!open) return
    message.value = ''
    faults.value = {}
    positions.value = []
    since.value = ''
    fate.value = ''
    isLoading.value = true
    try {
      sets.value = await answerOf(
        api.GET('/api/instruments/{ticket}/string-sets', { params: { path: { ticket: ticket.value } } }),
      )
      const onIt = sets.value.find((set) => set.id === props.sheet.strings?.id)
      chosen.value = onIt?.id ?? sets.value[0]?.id ?? OWN
      const told = await answerOf(api.GET('/api/instruments/{ticket}/strings', { params: { path: { ticket: ticket.value } } }))
      steps.value = told.steps
      hours.value = told.hours_a_week === null ? '' : String(told.hours_a_week)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      message.value = error.message
    } finally {
      isLoading.value = false
      focusChosenInDialog()
    }
  },
  { immediate: true },
)

const forEach = (typed: string[]) => props.sheet.instrument.string_names.map((_, i) => typed[i] ?? '')
async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  faults.value = {}
  message.value = ''
  const isOwn = chosen.value === OWN
  try {
    await bench.nameStrings({
      set_id: isOwn ? null : chosen.value,
      own: isOwn
        ? { ...own, diameters: forEach(own.diameters), tensions: forEach(own.tensions) }
        : null,
      put_on_now: putOnNow.value,
      positions: positions.value,
      since: putOnNow.value || !since.value ? null : since.value,
      hours_a_week: hours.value,
      fate: putOnNow.value ? fate.value : '',
    })
    isOpen.value = false
    void house.load()
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
  <FormDialog
    v-model="isOpen"
    :title="t('which_strings_are_on_it')"
    :act="t('these_strings')"
    :is-sending="isSending"
    :message="message"
    @send="send"
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
      <v-text-field v-model="own.name" :label="t('name_of_the_set')" maxlength="80" :error-messages="faults.name" />
      <v-select v-model="own.material" :label="t('material')" :items="house.choices?.materials ?? []" />
      <div class="wide each" :style="{ gridTemplateRows: `repeat(${sheet.instrument.string_names.length}, auto)` }">
        <v-text-field
          v-for="(name, i) in sheet.instrument.string_names"
          :key="name"
          v-model="own.diameters[i]"
          :label="t('diameter_in_mm', { name })"
          inputmode="decimal"
          maxlength="40"
          :error-messages="faults[`diameters.${i}`]"
        />
        <v-text-field
          v-for="(name, i) in sheet.instrument.string_names"
          :key="`${name} N`"
          v-model="own.tensions[i]"
          :label="t('tension_in_n_if_it', { name })"
          inputmode="decimal"
          maxlength="40"
          :error-messages="faults[`tensions.${i}`]"
        />
      </div>
    </template>
    <v-checkbox v-model="putOnNow" class="wide" hide-details :label="t('they_were_put_on_just')" />
    <ul v-if="putOnNow" class="wide steps" :aria-label="t('while_they_go_on')">
      <li v-for="step in steps" :key="step.says" :class="step.kind">{{ step.says }}<template v-if="step.kind !== 'do'">: {{ step.because }}</template></li>
    </ul>
    <fieldset class="wide which">
      <legend>{{ t('all_of_them_or_only') }}</legend>
      <label v-for="(name, i) in sheet.instrument.string_names" :key="name"><input v-model="positions" type="checkbox" :value="i" />{{ name }}</label>
    </fieldset>
    <p v-if="faults.positions" class="wide fault" role="alert">{{ faults.positions }}</p>
    <v-select v-if="putOnNow" v-model="fate" :label="t('those_that_came_off')" :items="FATES" />
    <v-text-field v-else v-model="since" type="date" :label="t('on_it_since_if_it')" :error-messages="faults.since" />
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
