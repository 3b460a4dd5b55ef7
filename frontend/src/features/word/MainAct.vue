<script setup lang="ts">
/** The one thing to do now, as a button that is always in sight, with the caution that goes with it. */
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { BenchSheet } from '@/api'
import { keyOf, nextAsked, useBench } from '@/features/bench'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/word'

/** inHand : the place that digits go to: what is measured next is one thing, here and under the cursor. */
const props = defineProps<{ sheet: BenchSheet; inHand: string }>()
const emit = defineEmits<{ record: [work: string]; strings: []; step: [key: string]; handOver: []; decide: [question: string]; measure: [key: string] }>()
const atBench = useAtBench()
const bench = useBench()
const router = useRouter()
const told = computed(() => props.sheet.instruction)
const mayWork = computed(() => atBench.may('measure'))

/** A step that somebody confirms as done has its button here. */
const byHand = computed(() => {
  const stop = props.sheet.course.find((one) => one.key === told.value.stop)
  return stop?.by_hand && stop.state === 'here' ? stop : null
})
const main = computed((): { words: string; run: () => void } | null => {
  const now = told.value
  if (props.sheet.instrument.handed_over_at) return null
  if (['do_planned', 'estimate', 'ask_owner'].includes(now.code)) return { words: t('open_the_plan'), run: () => void router.push({ name: 'plan', params: { ticket: props.sheet.instrument.ticket } }) }
  if (now.question) return atBench.may('sign_off') ? { words: t('decide'), run: () => emit('decide', now.question) } : null
  if (now.code === 'hand_over') return { words: t('hand_over'), run: () => emit('handOver') }
  if (!mayWork.value) return null
  const { record } = now
  if (now.code === 'name_strings') return { words: t('choose_strings'), run: () => emit('strings') }
  if (record) return { words: record.label, run: () => emit('record', record.work) }
  if (now.code === 'see_damage') return { words: t('open_damage_map'), run: () => void router.push({ name: 'damage', params: { ticket: props.sheet.instrument.ticket } }) }
  if (now.code === 'inspect') return { words: t('open_inspection'), run: () => emit('step', 'look') }
  const stop = byHand.value
  if (stop) return { words: `${stop.label} …`, run: () => emit('step', stop.key) }
  const key = nextAsked(props.sheet, bench.waitingHere, props.inHand)
  const cell = props.sheet.cells.find((one) => keyOf(one) === key)
  if (cell) return { words: t('measure', { name: cell.name }), run: () => emit('measure', keyOf(cell)) }
  return null
})
</script>

<template>
  <p v-if="told.caution" class="caution">{{ told.caution }}</p>
  <v-btn v-if="main" variant="flat" block class="main-act" @click="main.run">{{ main.words }}</v-btn>
</template>

<style scoped>
.caution {
  margin: 0 0 8px;
  padding-left: 10px;
  border-left: 4px solid var(--ink);
  font-size: var(--type-note);
  line-height: 1.35;
}
.main-act {
  min-height: var(--main-button);
  height: auto;
}
.main-act :deep(.v-btn__content) {
  white-space: normal;
}
</style>
