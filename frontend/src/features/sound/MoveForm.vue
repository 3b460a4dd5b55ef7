<script setup lang="ts">
/** One act at the post: one end, one way, so many taps or millimetres. */
import { nextTick, onMounted, reactive, ref } from 'vue'
import type { SoundView } from '@/api'
import type { MoveBody } from './bodies'
import type { Faults } from './useSound'

const props = defineProps<{ view: SoundView; send: (body: MoveBody) => Promise<Faults>; start?: { end: string; direction: string } }>()
const emit = defineEmits<{ done: [] }>()
const WAYS = { bridge: 'toward the bridge', tailpiece: 'toward the tailpiece', treble: 'toward the treble side', bass: 'toward the bass side' }

const typed = reactive<Required<MoveBody>>({ end: props.start?.end ?? '', direction: props.start?.direction ?? '', taps: '', mm: '', tension: '', tool: '', words: '' })
const faults = ref<Record<string, string>>({})
const isSending = ref(false)
const form = ref<HTMLFormElement | null>(null)

async function write(): Promise<void> {
  isSending.value = true
  const wrong = await props.send({ ...typed })
  isSending.value = false
  faults.value = wrong ?? {}
  if (wrong) {
    const field = Object.keys(wrong)[0]
    void nextTick(() => form.value?.querySelector<HTMLElement>(`[name="${field}"]`)?.focus())
  } else emit('done')
}
onMounted(() => void nextTick(() => form.value?.querySelector<HTMLElement>(props.start ? '[name="taps"]' : '[name="end"]')?.focus()))
</script>

<template>
  <form ref="form" aria-label="Move the post" @submit.prevent="write">
    <h2>Move one end of the post</h2>
    <fieldset>
      <legend>which end</legend>
      <label v-for="end in ['top', 'bottom']" :key="end" class="choice"><input v-model="typed.end" type="radio" name="end" :value="end" />{{ end }}</label>
      <p v-if="faults.end" class="fault" role="alert">{{ faults.end }}</p>
    </fieldset>
    <fieldset>
      <legend>which way</legend>
      <label v-for="(label, key) in WAYS" :key="key" class="choice"><input v-model="typed.direction" type="radio" name="direction" :value="key" />{{ label }}</label>
      <p v-if="faults.direction" class="fault" role="alert">{{ faults.direction }}</p>
    </fieldset>
    <div class="two">
      <label>taps<input v-model="typed.taps" name="taps" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      <label>or mm<input v-model="typed.mm" name="mm" class="own" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
      <label>tension<select v-model="typed.tension" name="tension"><option value="">not said</option><option v-for="(label, key) in view.choices.tension" :key="key" :value="key">{{ label }}</option></select></label>
      <label>setter<select v-model="typed.tool" name="tool"><option value="">not said</option><option v-for="(label, key) in view.choices.setter" :key="key" :value="key">{{ label }}</option></select></label>
    </div>
    <p v-for="field in ['taps', 'mm', 'tension', 'tool', '']" v-show="faults[field]" :key="field" class="fault" role="alert">{{ faults[field] }}</p>
    <label>to remember<input v-model="typed.words" class="own" maxlength="400" autocomplete="off" /></label>
    <p class="quiet">{{ view.tap.charAt(0).toUpperCase() }}{{ view.tap.slice(1) }}.</p>
    <p class="caution">The setter off the f-hole’s edge; what is forced cracks the top. An apprentice does this beside a luthier.</p>
    <div class="ways">
      <v-btn @click="emit('done')">Cancel</v-btn>
      <v-btn type="submit" variant="flat" :loading="isSending">Record post move</v-btn>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
