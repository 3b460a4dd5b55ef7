<script setup lang="ts">
/**
 * Simulated devices, for trying and for learning. A real caliper types like a keyboard and needs nothing of this.
 */
import { ref, watch } from 'vue'
import { answerOf, api, Refused, type Cell } from '@/api'
import { keyOf } from '@/features/bench'
import { useCommands } from '@/shared/commands'
import { useStored } from '@/shared/stored'
import { t } from '@/words/measuring'

const props = defineProps<{ ticket: string; cell: Cell }>()
const emit = defineEmits<{ sent: [typed: string, tool: string, simulated: boolean] }>()

const OF_CALIPER = { noisy: t('its_readings_jump'), wrongly_zeroed: t('wrongly_zeroed'), in_inches: t('in_inches'), chatty: t('chatty_with_units') }
const OF_OTHERS = { overtone: t('hears_the_octave'), stuck: t('stuck') }
const FAULTS: Record<string, string> = { ...OF_CALIPER, ...OF_OTHERS, offline: t('offline') }

const manner = useStored<string[]>('caliper', [])
const fault = ref('')
watch(() => keyOf(props.cell), () => (fault.value = ''))

async function send(): Promise<void> {
  const body = { measure: props.cell.measure, position: props.cell.position, manner: manner.value }
  try {
    const { typed, tool, simulated } = await answerOf(api.POST('/api/instruments/{ticket}/device', { params: { path: { ticket: props.ticket } }, body }))
    fault.value = ''
    emit('sent', typed.trim(), tool, simulated)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
  }
}
useCommands([{ letter: 'k', own: true, words: t('reading_from_simulated_device'), run: () => void send() }])
</script>

<template>
  <details class="device">
    <summary>{{ t('simulated_devices') }}</summary>
    <label v-for="(words, name) in FAULTS" :key="name"><input v-model="manner" type="checkbox" :value="name" />{{ words }}</label>
    <v-btn @click="send">{{ t('send_reading') }}</v-btn>
  </details>
  <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
</template>

<style scoped>
.device {
  margin-top: 12px;
  border-top: 1px solid var(--hairline);
}
summary {
  min-height: var(--hit);
  line-height: 44px;
  cursor: pointer;
}
label {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: 40px;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.fault {
  margin: 8px 0 0;
}
</style>
