<script setup lang="ts">
/** One act at the post: one end, one way, so many taps or millimetres. */
import { nextTick, onMounted, ref } from 'vue'
import type { SoundView } from '@/api'
import { useFormEntry } from '@/shared/entry'
import type { MoveBody } from './bodies'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; send: (id: string, body: MoveBody) => Promise<void>; start?: { end: string; direction: string } }>()
const emit = defineEmits<{ done: [] }>()
const ENDS = { top: t('its_top'), bottom: t('its_bottom'), both: t('both_alike'), opposite: t('top_so_bottom_the_other_way') }
const WAYS = { bridge: t('toward_the_bridge'), tailpiece: t('toward_the_tailpiece'), treble: t('toward_the_treble_side'), bass: t('toward_the_bass_side') }

const empty = (): Required<MoveBody> => ({ end: '', direction: '', taps: '', mm: '', tension: '', tool: '', words: '' })
const { draft: typed, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'move', of: () => props.view.ticket, empty })
const form = ref<HTMLFormElement | null>(null)

async function write(): Promise<void> {
  if (await sendEntry((id, body) => props.send(id, body), () => emit('done'))) return
  const field = Object.keys(faults.value)[0]
  void nextTick(() => form.value?.querySelector<HTMLElement>(`[name="${field}"]`)?.focus())
}
function cancel(): void {
  clear()
  emit('done')
}
onMounted(() => {
  begin()
  // What advice names is the move that is meant now.
  if (props.start) Object.assign(typed.value, empty(), props.start)
  void nextTick(() => form.value?.querySelector<HTMLElement>(props.start ? '[name="taps"]' : '[name="end"]')?.focus())
})
</script>

<template>
  <form ref="form" :aria-label="t('move_the_post')" @submit.prevent="write">
    <h2>{{ t('move_one_end_of_the') }}</h2>
    <fieldset>
      <legend>{{ t('which_end') }}</legend>
      <label v-for="(label, end) in ENDS" :key="end" class="choice"><input v-model="typed.end" type="radio" name="end" :value="end" />{{ label }}</label>
      <p v-if="faults.end" class="fault" role="alert">{{ faults.end }}</p>
    </fieldset>
    <fieldset>
      <legend>{{ t('which_way') }}</legend>
      <label v-for="(label, key) in WAYS" :key="key" class="choice"><input v-model="typed.direction" type="radio" name="direction" :value="key" />{{ label }}</label>
      <p v-if="faults.direction" class="fault" role="alert">{{ faults.direction }}</p>
    </fieldset>
    <div class="two">
      <label>{{ t('taps') }}<input v-model="typed.taps" name="taps" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      <label>{{ t('or_mm') }}<input v-model="typed.mm" name="mm" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      <label>{{ t('tension') }}<select v-model="typed.tension" name="tension"><option value="">{{ t('not_said') }}</option><option v-for="(label, key) in view.choices.tension" :key="key" :value="key">{{ label }}</option></select></label>
      <label>{{ t('setter') }}<select v-model="typed.tool" name="tool"><option value="">{{ t('not_said') }}</option><option v-for="(label, key) in view.choices.setter" :key="key" :value="key">{{ label }}</option></select></label>
    </div>
    <p v-for="field in ['taps', 'mm', 'tension', 'tool']" v-show="faults[field]" :key="field" class="fault" role="alert">{{ faults[field] }}</p>
    <p v-if="message && !Object.keys(faults).length" class="fault" role="alert">{{ message }}</p>
    <label>{{ t('to_remember') }}<input v-model="typed.words" class="own" maxlength="400" autocomplete="off" /></label>
    <p class="quiet">{{ view.tap.charAt(0).toUpperCase() }}{{ view.tap.slice(1) }}. {{ view.opens }}</p>
    <p class="caution">{{ t('the_setter_off_the_f') }}</p>
    <div class="ways">
      <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
      <v-btn type="submit" variant="flat" :loading="isSending">{{ t('record_post_move') }}</v-btn>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
