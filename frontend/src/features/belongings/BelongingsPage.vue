<script setup lang="ts">
/** Fittings as objects, what came along, what the shop lent: a list of things, and the line about the one in hand. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { BelongingLine, Thing } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { useFormEntry } from '@/shared/entry'
import { day } from '@/shared/format'
import { freshId } from '@/shared/id'
import { useBelongings } from './useBelongings'
import { t } from '@/words/belongings'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const { view, failure, enter, takeBack } = useBelongings(() => props.ticket)

const GROUPS = { fitting: t('on_it'), along: t('came_along'), shop: t('the_shops_own') } as const
const NOTHING = { fitting: t('nothing_fitting'), along: t('nothing_along'), shop: t('nothing_shop') } as const
const PLACES = { with_it: t('with_it'), off: t('off_it_now'), gone: t('no_longer') } as const
const groups = computed(() =>
  (Object.keys(GROUPS) as (keyof typeof GROUPS)[]).map((key) => ({ key, things: (view.value?.things ?? []).filter((one) => one.group === key) })),
)
type Typed = Omit<BelongingLine, 'id'>
const empty = (): Typed => ({ thing: freshId(), kind: '', which: '', material: '', count: '', mass: '', made_on: null, stamp: '', place: 'with_it', lies: '' })
const { draft, isSending, message, faults, begin, send, clear } = useFormEntry({ kind: 'belonging', of: () => props.ticket, empty, isKept: true, isOpenAgainAtOnce: true })
watch(() => props.ticket, begin, { immediate: true })
const isOver = computed(() => !!bench.sheet?.instrument.handed_over_at)
const kind = computed(() => view.value?.kinds.find((one) => one.kind === draft.value.kind) ?? null)
const editing = computed(() => view.value?.things.find((one) => one.thing === draft.value.thing) ?? null)
const form = ref<HTMLFormElement | null>(null)

function start(): void {
  clear()
  void nextTick(() => form.value?.querySelector<HTMLElement>('select')?.focus())
}
function edit(thing: Thing): void {
  const { thing: id, which, material, stamp, place, lies } = thing
  Object.assign(draft.value, { ...empty(), thing: id, kind: thing.kind, which, material, stamp, place, lies, count: thing.count?.toString() ?? '', mass: thing.mass?.toString() ?? '', made_on: thing.made_on })
  void nextTick(() => form.value?.querySelector<HTMLElement>('[name="which"]')?.focus())
}
async function keep(): Promise<void> {
  const of = props.ticket
  const { group, counted } = kind.value ?? {}
  const isKept = await send((id, typed) => {
    const { thing, which, place, lies } = typed
    const ofFitting = group === 'fitting' ? { material: typed.material, mass: typed.mass, made_on: typed.made_on || null, stamp: typed.stamp } : {}
    return enter({ ...empty(), id, thing, kind: typed.kind, which, place, lies, count: counted ? typed.count : '', ...ofFitting })
  })
  if (of !== props.ticket) return
  void nextTick(() => form.value?.querySelector<HTMLElement>(isKept ? 'select' : `[name="${Object.keys(faults.value)[0]}"]`)?.focus())
}
/** Off the instrument, or back on it, by one act. */
async function put(thing: Thing, place: 'with_it' | 'off'): Promise<void> {
  edit(thing)
  draft.value.place = place
  if (place === 'with_it') await keep()
  else void nextTick(() => form.value?.querySelector<HTMLElement>('[name="lies"]')?.focus())
}
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'a', words: t('another_thing'), run: start, possible: () => !isOver.value },
])
</script>

<template>
  <InstrumentFrame :ticket="ticket" page="belongings" :title="t('what_belongs_to_it')" :label="t('what_belongs_to_it')">
    <p v-if="failure || (message && !Object.keys(faults).length)" class="fault" role="alert">{{ failure || message }}</p>
    <div v-if="view" class="things">
      <p v-for="line in view.says" :key="line" class="heed" role="note">{{ line }}</p>
      <section v-for="group in groups" :key="group.key" :aria-label="GROUPS[group.key]">
        <h2>{{ GROUPS[group.key] }}</h2>
        <p v-if="!group.things.length" class="quiet">{{ NOTHING[group.key] }}</p>
        <ul>
          <li v-for="one in group.things" :key="one.thing" :class="{ chosen: one.thing === draft.thing }">
            <span class="what"><b>{{ one.label }}</b>{{ one.says.slice(one.label.length) }}<span class="quiet by">{{ one.entered_by }}<template v-if="one.entered_at">, {{ day(one.entered_at) }}</template></span></span>
            <span v-if="!isOver" class="acts">
              <v-btn size="small" @click="edit(one)">{{ t('edit', { thing: one.label }) }}</v-btn>
              <v-btn v-if="one.place === 'off'" size="small" @click="put(one, 'with_it')">{{ t('back_on_it') }}</v-btn>
              <v-btn v-else-if="group.key === 'fitting'" size="small" @click="put(one, 'off')">{{ t('take_off') }}</v-btn>
              <v-btn v-if="one.is_here" size="small" @click="takeBack(one.id)">{{ t('undo') }}</v-btn>
            </span>
          </li>
        </ul>
      </section>
      <details v-if="view.gone.length">
        <summary>{{ t('no_longer_there') }}</summary>
        <ul><li v-for="one in view.gone" :key="one.thing" class="quiet">{{ one.says }}</li></ul>
      </details>
    </div>
    <p v-else-if="!failure" class="quiet things" role="status">{{ t('loading') }}</p>
    <template #todo>
      <form v-if="view && !isOver" id="thing" ref="form" :aria-label="t('a_thing')" @submit.prevent="keep">
        <h2>{{ editing ? t('change', { thing: editing.label }) : t('write_a_thing_down') }}</h2>
        <p v-for="(words, field) in faults" :key="field" class="fault" role="alert">{{ words }}</p>
        <label>{{ t('what_it_is') }}<select v-model="draft.kind" name="kind" :disabled="editing !== null">
          <option value="">{{ t('choose') }}</option>
          <optgroup v-for="(label, group) in GROUPS" :key="group" :label="label">
            <option v-for="one in view.kinds.filter((row) => row.group === group)" :key="one.kind" :value="one.kind">{{ one.label }}</option>
          </optgroup>
        </select></label>
        <label>{{ t('which_one') }}<input v-model="draft.which" name="which" maxlength="400" :placeholder="kind?.which ?? ''" autocomplete="off" /></label>
        <label v-if="kind?.counted">{{ t('how_many') }}<input v-model="draft.count" name="count" inputmode="numeric" maxlength="10" autocomplete="off" /></label>
        <template v-if="kind?.group === 'fitting'">
          <label>{{ t('wood_or_other_material') }}<input v-model="draft.material" name="material" maxlength="400" autocomplete="off" /></label>
          <div class="two">
            <label>{{ t('mass_in_g') }}<input v-model="draft.mass" name="mass" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
            <label>{{ t('made_on') }}<input v-model="draft.made_on" name="made_on" type="date" /></label>
          </div>
          <label>{{ t('stamp') }}<input v-model="draft.stamp" name="stamp" maxlength="400" autocomplete="off" /></label>
        </template>
        <fieldset>
          <legend>{{ t('where_it_is') }}</legend>
          <label v-for="(label, place) in PLACES" :key="place" class="choice"><input v-model="draft.place" type="radio" name="place" :value="place" />{{ label }}</label>
        </fieldset>
        <label v-if="draft.place === 'off'">{{ t('where_it_lies') }}<input v-model="draft.lies" name="lies" maxlength="400" autocomplete="off" /></label>
        <v-btn v-if="editing" @click="start">{{ t('another_thing') }}</v-btn>
      </form>
      <p v-else-if="isOver" class="quiet">{{ t('handed_over_already') }}</p>
    </template>
    <template #main>
      <v-btn v-if="view && !isOver" type="submit" form="thing" variant="flat" block class="main-act" :loading="isSending" :disabled="!draft.kind">{{ t('write_it_down') }}</v-btn>
    </template>
  </InstrumentFrame>
</template>

<style scoped src="../../shared/asideForm.css"></style>
<style scoped>
.things {
  padding: 0 18px 18px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 6px 8px;
  border-bottom: 1px solid var(--hairline);
}
li.chosen {
  border-left: 4px solid var(--action);
}
.what {
  flex: 1 1 300px;
}
.by {
  display: block;
  font-size: var(--type-note);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.heed {
  padding: 8px 12px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
</style>
