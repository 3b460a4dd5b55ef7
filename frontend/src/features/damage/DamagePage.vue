<script setup lang="ts">
/** The damage map: what is marked on the instrument from all sides, and the look that is being written down. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { DamageLook, DamageMark } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useHouse } from '@/features/rail'
import { useCommands } from '@/shared/commands'
import { useFormEntry } from '@/shared/entry'
import { freshId } from '@/shared/id'
import DamageMap from './DamageMap.vue'
import type { FaceName } from './faces'
import MarkList from './MarkList.vue'
import SignedFor from './SignedFor.vue'
import { useDamage } from './useDamage'
import { t } from '@/words/damage'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const house = useHouse()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const { view, failure, look, sign, takeBack, photograph } = useDamage(() => props.ticket)
const instrument = computed(() => (bench.sheet?.instrument.ticket === props.ticket ? bench.sheet.instrument : null))

type Typed = Required<Omit<DamageLook, 'id'>>
const empty = (): Typed => ({ thing: freshId(), kind: '', face: '', along: '', across: '', to_along: '', to_across: '', length: '', ends: '', state: '', under_tension: false, words: '' })
const { draft, isSending, message, faults, begin, send, clear } = useFormEntry({ kind: 'damage', of: () => props.ticket, empty, isKept: true, isOpenAgainAtOnce: true })
watch(() => props.ticket, begin, { immediate: true })

const form = ref<HTMLFormElement | null>(null)
const focus = (name: string) => void nextTick(() => form.value?.querySelector<HTMLElement>(`[name="${name}"]`)?.focus())
const kind = computed(() => view.value?.kinds.find((one) => one.kind === draft.value.kind) ?? null)
const editing = computed(() => view.value?.marks.find((one) => one.thing === draft.value.thing) ?? null)
const faces = computed(() => view.value?.faces.filter((one) => !kind.value || kind.value.faces.includes(one.key)) ?? [])
const states = computed(() => view.value?.states.filter((one) => kind.value?.states.includes(one.key)) ?? [])
const isSame = (a: string, b: string) => a.replace(',', '.') === b.replace(',', '.')
const mm = (typed: string): number | null => {
  const value = Number(typed.trim().replace(',', '.').replace('−', '-'))
  return typed.trim() === '' || Number.isNaN(value) ? null : value
}
/** What is being placed; a mark that stays where it is stands on the map already. */
const placing = computed(() => {
  const [along, across, toAlong, toAcross] = [mm(draft.value.along), mm(draft.value.across), mm(draft.value.to_along), mm(draft.value.to_across)]
  const there = editing.value
  const isMoved = !there || there.face !== draft.value.face || there.along !== along || there.across !== across || there.to_along !== toAlong || there.to_across !== toAcross
  return { face: draft.value.face, along: isMoved ? along : null, across, toAlong, toAcross }
})

/** From where a place is measured on the side that was chosen. */
const PLATE = [t('from_the_top_edge'), t('minus_is_bass')] as const
const SIDE = [t('from_the_neck'), t('minus_is_back')] as const
const HINTS: Record<string, readonly [string, string]> = { bass_side: SIDE, treble_side: SIDE, neck: [t('from_the_nut'), t('minus_is_bass')], scroll: [t('from_the_top'), t('minus_is_back')] }
const hints = computed(() => HINTS[draft.value.face] ?? PLATE)

/** A mark keeps its kind; what it is not, it cannot be. */
watch(kind, (now) => {
  if (!now) return
  if (!now.states.includes(draft.value.state)) draft.value.state = now.states.length === 1 ? (now.states[0] ?? '') : ''
  if (draft.value.face && !now.faces.includes(draft.value.face)) draft.value.face = ''
})
/** The first click says where it begins, the second where it ends, a third begins anew. */
function place(face: FaceName, along: number, across: number): void {
  const one = draft.value
  const isSecond = kind.value?.long !== false && one.along !== '' && one.to_along === '' && one.face === face
  if (isSecond && !(isSame(one.along, `${along}`) && isSame(one.across, `${across}`))) Object.assign(one, { to_along: `${along}`, to_across: `${across}` })
  else Object.assign(one, { face, along: `${along}`, across: `${across}`, to_along: '', to_across: '' })
  focus(one.kind ? (isSecond ? 'length' : 'along') : 'kind')
}
function start(): void {
  clear()
  focus('kind')
}
function again(mark: DamageMark): void {
  const text = (value: number | null) => (value === null ? '' : `${value}`)
  Object.assign(draft.value, { ...empty(), thing: mark.thing, kind: mark.kind, face: mark.face, along: text(mark.along), across: text(mark.across), to_along: text(mark.to_along), to_across: text(mark.to_across), ends: mark.ends, state: mark.state })
  focus(view.value?.kinds.find((one) => one.kind === mark.kind)?.long ? 'length' : 'words')
}
function choose(thing: string): void {
  const mark = view.value?.marks.find((one) => one.thing === thing)
  if (mark && view.value?.may_mark) again(mark)
  document.querySelector(`[data-mark="${thing}"]`)?.scrollIntoView({ block: 'nearest' })
}
async function keep(): Promise<void> {
  const of = props.ticket
  const isKept = await send((id, typed) => look({ id, ...typed }))
  if (isKept) void house.load()
  if (of === props.ticket) focus(isKept ? 'kind' : (Object.keys(faults.value)[0] ?? 'kind'))
}
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'a', words: t('another_mark'), run: start, possible: () => !!view.value?.may_mark },
])
</script>

<template>
  <InstrumentFrame :ticket="ticket" page="damage" :title="t('damage_map')" :label="t('damage_map')">
    <p v-if="failure || (message && !Object.keys(faults).length)" class="fault" role="alert">{{ failure || message }}</p>
    <div v-if="view && instrument" class="damage">
      <DamageMap :map="view" :family="instrument.family" :left-handed="instrument.left_handed" :placing="placing" :chosen="draft.thing" @place="place" @choose="choose" />
      <MarkList :map="view" :chosen="draft.thing" @look="again" @take-back="takeBack" @photograph="(files, mark) => void photograph(files, mark)" />
      <SignedFor :ticket="ticket" :map="view" :sign="sign" @take-back="takeBack" />
    </div>
    <p v-else-if="!failure" class="quiet damage" role="status">{{ t('loading') }}</p>
    <template #todo>
      <form v-if="view?.may_mark" id="damage" ref="form" :aria-label="t('mark_damage')" @submit.prevent="keep">
        <h2>{{ editing ? t('look_again_at', { place: editing.place, label: editing.label }) : t('mark_damage') }}</h2>
        <p v-for="(words, field) in faults" :key="field" class="fault" role="alert">{{ words }}</p>
        <label>{{ t('what_it_is') }}<select v-model="draft.kind" name="kind" :disabled="editing !== null">
          <option value="">{{ t('choose') }}</option>
          <option v-for="one in view.kinds" :key="one.kind" :value="one.kind">{{ one.label }}</option>
        </select></label>
        <p v-if="kind" class="caution">{{ kind.careful }}</p>
        <label>{{ t('which_side') }}<select v-model="draft.face" name="face">
          <option value="">{{ t('choose') }}</option>
          <option v-for="one in faces" :key="one.key" :value="one.key">{{ one.label }}</option>
        </select></label>
        <fieldset>
          <legend>{{ kind?.long ? t('its_first_end') : t('where_it_is') }}</legend>
          <div class="two">
            <label>{{ t('along') }}<input v-model="draft.along" name="along" :placeholder="hints[0]" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
            <label>{{ t('across') }}<input v-model="draft.across" name="across" :placeholder="hints[1]" inputmode="text" maxlength="20" autocomplete="off" /></label>
          </div>
        </fieldset>
        <fieldset v-if="kind?.long">
          <legend>{{ t('its_other_end') }}</legend>
          <p v-if="draft.along && !draft.to_along" class="quiet">{{ t('click_its_other_end') }}</p>
          <div class="two">
            <label>{{ t('along') }}<input v-model="draft.to_along" name="to_along" :placeholder="hints[0]" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
            <label>{{ t('across') }}<input v-model="draft.to_across" name="to_across" :placeholder="hints[1]" inputmode="text" maxlength="20" autocomplete="off" /></label>
          </div>
        </fieldset>
        <div v-if="kind?.long" class="two">
          <label>{{ t('length') }}<input v-model="draft.length" name="length" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
          <label>{{ t('ends') }}<select v-model="draft.ends" name="ends"><option v-for="one in view.ends" :key="one.key" :value="one.key">{{ one.label }}</option></select></label>
        </div>
        <fieldset v-if="kind">
          <legend>{{ t('how_it_is') }}</legend>
          <label v-for="one in states" :key="one.key" class="choice"><input v-model="draft.state" type="radio" name="state" :value="one.key" />{{ one.label }}</label>
          <label class="choice"><input v-model="draft.under_tension" type="checkbox" name="under_tension" />{{ t('under_tension') }}</label>
        </fieldset>
        <label>{{ t('in_words') }}<input v-model="draft.words" name="words" maxlength="500" autocomplete="off" /></label>
        <v-btn v-if="editing || draft.along" @click="start">{{ t('another_mark') }}</v-btn>
      </form>
      <p v-else-if="view" class="quiet">{{ t('handed_over_already') }}</p>
    </template>
    <template #main>
      <v-btn v-if="view?.may_mark" type="submit" form="damage" variant="flat" block class="main-act" :loading="isSending" :disabled="!draft.kind">{{ editing ? t('write_down_this_look') : t('mark_it') }}</v-btn>
    </template>
  </InstrumentFrame>
</template>

<style scoped src="../../shared/asideForm.css"></style>
<style scoped>
.damage {
  padding: 0 18px 18px;
}
</style>
