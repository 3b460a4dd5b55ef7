<script setup lang="ts">
/** A recording of how it sounds now: by this device's microphone, or a file. */
import { onBeforeUnmount, ref } from 'vue'
import type { Faults } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{ send: (sound: Blob, words: string) => Promise<Faults> }>()
const emit = defineEmits<{ done: [] }>()
const words = ref('')
const fault = ref('')
const isOn = ref(false)
const isSending = ref(false)
const seconds = ref(0)
const LONGEST_S = 120
let recorder: MediaRecorder | null = null
let ticking: ReturnType<typeof setInterval> | undefined

async function begin(): Promise<void> {
  fault.value = ''
  if (!navigator.mediaDevices?.getUserMedia || typeof MediaRecorder === 'undefined') {
    fault.value = t('this_browser_gives_no_microphone')
    return
  }
  let stream: MediaStream
  try {
    stream = await navigator.mediaDevices.getUserMedia({ audio: true })
  } catch {
    fault.value = t('the_microphone_was_not_given')
    return
  }
  const parts: Blob[] = []
  recorder = new MediaRecorder(stream)
  recorder.ondataavailable = (event) => parts.push(event.data)
  recorder.onstop = () => {
    for (const track of stream.getTracks()) track.stop()
    void keep(new Blob(parts, { type: recorder?.mimeType ?? 'audio/webm' }))
  }
  recorder.start()
  isOn.value = true
  seconds.value = 0
  ticking = setInterval(() => {
    seconds.value += 1
    if (seconds.value >= LONGEST_S) stop()
  }, 1000)
}
function stop(): void {
  clearInterval(ticking)
  if (isOn.value) recorder?.stop()
  isOn.value = false
}
async function keep(sound: Blob): Promise<void> {
  isSending.value = true
  const wrong = await props.send(sound, words.value.trim())
  isSending.value = false
  if (wrong) fault.value = Object.values(wrong)[0] ?? ''
  else emit('done')
}
function onFile(event: Event): void {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void keep(file)
}
onBeforeUnmount(stop)
</script>

<template>
  <section :aria-label="t('record_audio')">
    <h2>{{ t('record_audio') }}</h2>
    <label>{{ t('what_is_played') }}<input v-model="words" class="own" maxlength="400" autocomplete="off" /></label>
    <p class="quiet">{{ t('the_same_bow_the_same') }}</p>
    <p v-if="isOn" role="status"><b>{{ t('recording_s', { seconds }) }}</b></p>
    <p v-if="isSending" role="status">{{ t('kept') }}</p>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <div class="ways">
      <v-btn @click="emit('done')">{{ t('cancel') }}</v-btn>
      <input id="sound-file" class="only-read" type="file" accept="audio/*" @change="onFile" />
      <label class="file" for="sound-file">{{ t('a_file') }}</label>
      <v-btn v-if="!isOn" variant="flat" autofocus @click="begin">{{ t('record') }}</v-btn>
      <v-btn v-else variant="flat" @click="stop">{{ t('stop_and_save') }}</v-btn>
    </div>
  </section>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.file {
  display: inline-flex;
  align-items: center;
  min-height: var(--hit);
  margin: 0;
  padding: 0 14px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  cursor: pointer;
}
#sound-file:focus-visible + .file {
  outline: 3px solid var(--action);
  outline-offset: 2px;
}
</style>
