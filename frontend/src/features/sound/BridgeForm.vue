<script setup lang="ts">
/** The bridge for the tone: first what comes off again, then wood, which does not come back. */
import { computed, nextTick, onMounted, ref } from 'vue'
import type { SoundView } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { day } from '@/shared/format'
import type { TrialBody, WoodBody } from './bodies'
import type { Faults } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{
  view: SoundView
  tryOnBridge: (id: string, body: TrialBody) => Promise<void>
  trialOff: (trial: string) => Promise<Faults>
  woodOff: (id: string, body: WoodBody) => Promise<void>
}>()
const emit = defineEmits<{ done: [] }>()

const empty = () => ({
  way: 'trial' as 'trial' | 'wood',
  trial: { what: '', place: '', mass: '', words: '' } as Required<TrialBody>,
  wood: { place: '', off: '', left: '', reason: '', words: '' } as Required<WoodBody>,
})
const { draft, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'bridge-tone', of: () => props.view.ticket, empty })
const trial = computed(() => draft.value.trial)
const wood = computed(() => draft.value.wood)
const form = ref<HTMLFormElement | null>(null)
const offFault = ref('')

async function send(): Promise<void> {
  await sendEntry((id, typed) => (typed.way === 'trial' ? props.tryOnBridge(id, typed.trial) : props.woodOff(id, typed.wood)), () => emit('done'))
}
async function takeOff(id: string): Promise<void> {
  const wrong = await props.trialOff(id)
  offFault.value = wrong ? (Object.values(wrong)[0] ?? '') : ''
  if (!wrong) emit('done')
}
function cancel(): void {
  clear()
  emit('done')
}
onMounted(() => {
  begin()
  void nextTick(() => form.value?.querySelector<HTMLElement>('input, select')?.focus())
})
</script>

<template>
  <form ref="form" :aria-label="t('adjust_the_bridge')" @submit.prevent="send">
    <h2>{{ t('adjust_the_bridge') }}</h2>
    <p v-for="one in view.trials_on" :key="one.id">{{ t('on_the_bridge', { says: one.says }) }} <v-btn size="small" @click="takeOff(one.id)">{{ t('record_taken_off') }}</v-btn></p>
    <fieldset>
      <legend class="only-read">{{ t('what') }}</legend>
      <label class="choice"><input v-model="draft.way" type="radio" value="trial" name="way" />{{ t('try_something_that_comes_off') }}</label>
      <label class="choice"><input v-model="draft.way" type="radio" value="wood" name="way" />{{ t('wood_was_taken') }}</label>
    </fieldset>
    <template v-if="draft.way === 'trial'">
      <label>{{ t('what') }}<select v-model="trial.what"><option value="">{{ t('choose') }}</option><option v-for="(label, key) in view.choices.trial" :key="key" :value="key">{{ label }}</option></select></label>
      <p v-if="faults.what" class="fault" role="alert">{{ faults.what }}</p>
      <label>{{ t('where') }}<select v-model="trial.place"><option value="">{{ t('choose') }}</option><option v-for="(label, key) in view.choices.place" :key="key" :value="key">{{ label }}</option></select></label>
      <p v-if="faults.place" class="fault" role="alert">{{ faults.place }}</p>
      <label>{{ t('its_mass_g') }}<input v-model="trial.mass" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      <p v-if="faults.mass" class="fault" role="alert">{{ faults.mass }}</p>
      <label>{{ t('to_remember') }}<input v-model="trial.words" class="own" maxlength="400" autocomplete="off" /></label>
    </template>
    <template v-else>
      <p v-if="view.next_shaving" class="quiet">{{ t('the_next_shaving_from_on', { day: day(view.next_shaving) }) }}</p>
      <label>{{ t('where') }}<select v-model="wood.place"><option value="">{{ t('choose') }}</option><option v-for="(label, key) in view.choices.place" :key="key" :value="key">{{ label }}</option></select></label>
      <p v-if="faults.place" class="fault" role="alert">{{ faults.place }}</p>
      <div class="two">
        <label>{{ t('taken_off_mm') }}<input v-model="wood.off" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
        <label>{{ view.choices.opening?.[wood.place] ? t('now_mm', { place: view.choices.opening[wood.place] }) : t('left_there_mm') }}<input v-model="wood.left" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      </div>
      <p v-for="field in ['off', 'left']" v-show="faults[field]" :key="field" class="fault" role="alert">{{ faults[field] }}</p>
      <template v-if="faults.reason || wood.reason">
        <p class="fault" role="alert">{{ faults.reason }}</p>
        <label>{{ t('why_all_the_same') }}<input v-model="wood.reason" class="own" maxlength="400" autocomplete="off" /></label>
      </template>
      <label>{{ t('to_remember') }}<input v-model="wood.words" class="own" maxlength="400" autocomplete="off" /></label>
      <p class="caution">{{ t('wood_does_not_come_back') }}</p>
    </template>
    <p v-if="offFault || (message && !Object.keys(faults).length)" class="fault" role="alert">{{ offFault || message }}</p>
    <div class="ways">
      <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
      <v-btn type="submit" variant="flat" :loading="isSending">{{ draft.way === 'trial' ? t('record_put_on') : t('record_wood_taken') }}</v-btn>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
