<script setup lang="ts">
/** The wood at each string over the drawing: big where it is to take now, small where it would only be to the aim. */
import { computed } from 'vue'
import type { BenchSheet } from '@/api'
import type { SheetGeometry } from '@/features/drawing'
import { down, mm, up } from '@/shared/format'
import { t } from '@/words/sheet'

const props = defineProps<{ cut: BenchSheet['cut']; amounts: BenchSheet['instruction']['amounts']; geometry: SheetGeometry; narrow: boolean }>()
const emit = defineEmits<{ why: [name: string] }>()

const NOTHING = 0.05
const LABELS = {
  none: '',
  due: t('take_off'),
  slots: t('file_the_slots'),
  beside: t('beside_the_strings'),
  nut: t('file_the_nut'),
  coming_down: t('to_come_down'),
  wheels: t('by_the_wheels'),
  may: '',
  waits: t('do_not_cut_yet'),
  to_aim: t('in_band_to_the_aim'),
  not_chosen: t('not_cut_decided_otherwise'),
} as const
const UNITS: Partial<Record<keyof typeof LABELS, string>> = { slots: t('mm_deeper'), nut: t('mm_at_the_nut'), coming_down: t('at_the_bridge'), wheels: t('at_the_bridge') }
/** What the instruction asks for at each string, by the role of the cut. */
const NOW: Partial<Record<keyof typeof LABELS, string>> = { due: 'take', slots: 'slot_by', beside: 'beside', nut: 'file_first' }

const isProvisional = computed(() => props.cut.state === 'provisional')
const label = computed(() => {
  if (props.cut.role === 'may') return isProvisional.value ? t('provisional_cut') : t('wood_to_take')
  return props.cut.role === 'due' && isProvisional.value ? t('take_off_provisional') : LABELS[props.cut.role]
})
const unit = computed(() => UNITS[props.cut.role] ?? t('mm_of_wood'))

type CutString = BenchSheet['cut']['strings'][number]
interface Shown {
  text: string
  below: string
  side: '' | 'above' | 'below'
}

/** The instruction's own amount where it has one; else what there is in all. */
function shown(s: CutString, i: number): Shown | null {
  const name = NOW[props.cut.role]
  if (name) {
    const amount = props.amounts.find((one) => one.name === name && one.position === i)
    if (!amount) return s.drop === null ? null : { text: '–', below: '', side: '' }
    const places = name === 'take' ? 1 : 2
    const below = name === 'take' && !props.narrow ? t('of', { down: down(s.wood ?? 0, 1), up: up(s.uncertainty ?? 0, 1) }) : `±${up(amount.uncertainty, name === 'take' ? 1 : 2)}`
    return { text: down(amount.value, places), below, side: 'above' }
  }
  if (props.cut.role === 'coming_down' || props.cut.role === 'wheels') {
    if (s.drop === null) return null
    const isLow = s.drop <= -NOTHING
    return { text: isLow ? mm(-s.drop, 2) : down(Math.max(0, s.drop), 2), below: isLow ? t('too_low') : `±${up(s.drop_known_to ?? 0, 2)}`, side: isLow ? 'below' : '' }
  }
  if (s.wood === null) return null
  const side = s.wood <= -NOTHING ? 'below' : s.wood >= NOTHING ? 'above' : ''
  return { text: s.wood < 0 ? mm(-s.wood, 1) : down(s.wood, 1), below: side === 'below' ? t('too_low') : `±${up(s.uncertainty ?? 0, 1)}`, side }
}
/** It begins with what stands there. */
function spoken(name: string, { text, below, side }: Shown): string {
  return side === 'below' ? t('mm_why', { name, text, below }) : t('mm_why_2', { name, label: label.value, text: [text, below].filter(Boolean).join(' ') })
}
/** Two digits at the large size, with air beside them. [px] */
const ROOM_FOR_LARGE = 66
const tight = computed(() => (props.geometry.columns[0]?.width ?? ROOM_FOR_LARGE) < ROOM_FOR_LARGE)
const strings = computed(() =>
  props.cut.strings.map((s, i) => ({ name: s.name, column: props.geometry.columns[i], shown: shown(s, i) })),
)
</script>

<template>
  <div class="take-off" :class="[cut.role, { tight }]" :aria-label="t('wood_to_take_off_at')">
    <span v-if="!narrow" class="take-label"><b>{{ label }}</b><br />{{ unit }}</span>
    <template v-for="(s, i) in strings" :key="s.name">
      <button
        v-if="s.shown && s.column"
        type="button"
        class="plain-button wood"
        :class="s.shown.side"
        :style="{ left: `${s.column.left}px`, width: `${s.column.width}px` }"
        :aria-label="spoken(s.name, s.shown)"
        @click="emit('why', `${cut.role === 'nut' ? 'nut_height' : 'wood'}:${i}`)"
      >
        <span class="number">{{ s.shown.text }}</span>{{ ' ' }}
        <span class="below-number">{{ s.shown.below }}</span>
      </button>
      <span v-else-if="s.column" class="wood none" :style="{ left: `${s.column.left}px`, width: `${s.column.width}px` }"><span class="number">–</span></span>
    </template>
  </div>
</template>

<style scoped>
.take-off {
  position: relative;
  height: 52px;
}
.take-label {
  position: absolute;
  left: 16px;
  top: 4px;
  line-height: 1.2;
  width: 118px;
}
.wood {
  position: absolute;
  top: 0;
  height: 54px;
  text-align: center;
  display: grid;
  align-content: start;
}
.number {
  font-size: var(--type-cut);
  font-weight: 700;
  line-height: 1;
}
.tight .number {
  padding-top: 4px;
  font-size: var(--type-reading);
}
.below-number {
  font-size: var(--type-note);
  line-height: 1.2;
}
.slots .number,
.nut .number,
.beside .number {
  font-size: var(--type-reading);
  padding-top: 4px;
}
.due .number,
.slots .number,
.nut .number,
.beside .number {
  color: var(--ink);
}
.may .number {
  font-weight: 400;
}
.waits .number,
.coming_down .number,
.wheels .number,
.not_chosen .number,
.to_aim .number {
  padding-top: 8px;
  font-size: var(--type-target);
  font-weight: 400;
  color: var(--quiet);
}
.not_chosen .number {
  text-decoration: line-through;
}
.wood.below .number {
  color: var(--below);
}
.wood.none {
  color: var(--quiet);
}
</style>
