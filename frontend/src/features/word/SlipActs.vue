<script setup lang="ts">
/** What puts a slip right, in one act: swap, confirm, undo, move to another ticket, or record the cut before it. */
import { ref } from 'vue'
import { Refused, type Instruction } from '@/api'
import { useBench } from '@/features/bench'
import { post } from '@/outbox'
import { freshId } from '@/shared/id'
import { t } from '@/words/word'

type Act = 'keep' | 'undo' | 'swap' | 'move' | 'record_cut'

const WORDS: Record<Act, string> = {
  keep: t('confirmed_as_read'),
  undo: t('undo_readings'),
  swap: t('bass_and_treble_swapped'),
  move: t('readings_moved'),
  record_cut: t('crown_cut_before'),
}

const props = defineProps<{ slip: NonNullable<Instruction['slip']> }>()
const emit = defineEmits<{ strings: [] }>()
const bench = useBench()
const to = ref('')
const fault = ref('')
const isSending = ref(false)

async function act(name: Act): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  fault.value = ''
  const body = { id: freshId(), act: name, readings: props.slip.readings, to: name === 'move' ? to.value.trim().toUpperCase() : '' }
  try {
    await bench.submit((ticket) => post('/api/instruments/{ticket}/readings/put-right', { params: { path: { ticket } }, body, words: WORDS[name] }))
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
  } finally {
    isSending.value = false
  }
}
</script>

<template>
  <div class="acts" role="group" :aria-label="t('put_it_right')">
    <v-btn v-if="slip.act === 'swap'" variant="flat" :loading="isSending" @click="act('swap')">{{ t('swap_bass_and_treble') }}</v-btn>
    <v-btn v-if="slip.act === 'choose_strings'" variant="flat" @click="emit('strings')">{{ t('choose_strings') }}</v-btn>
    <v-btn v-if="slip.act === 'record_cut'" variant="flat" :loading="isSending" @click="act('record_cut')">{{ t('record_crown_cut_before') }}</v-btn>
    <form v-if="slip.act === 'move'" class="move" @submit.prevent="act('move')">
      <label>{{ t('ticket') }}<input v-model="to" class="plain-input" maxlength="16" autocomplete="off" /></label>
      <v-btn variant="flat" type="submit" :loading="isSending" :disabled="to.trim() === ''">{{ t('move_readings_there') }}</v-btn>
    </form>
    <template v-if="slip.readings.length">
      <v-btn :disabled="isSending" @click="act('keep')">{{ t('confirm_as_read') }}</v-btn>
      <v-btn :disabled="isSending" @click="act('undo')">{{ t('undo', { readings: slip.readings.length === 1 ? t('the_reading') : t('all_readings', { readings: slip.readings.length }) }) }}</v-btn>
    </template>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 10px 0 14px;
}
.move {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.move label {
  display: grid;
}
.move input {
  width: 120px;
}
.fault {
  flex-basis: 100%;
  margin: 0;
}
</style>
