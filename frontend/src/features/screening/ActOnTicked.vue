<script setup lang="ts">
/** One act on all instruments that are ticked; each has an answer of its own, and what could not be done says why. */
import { computed, nextTick, ref, watch } from 'vue'
import { answerOf, api, Refused, type ScreenRow, type SetView, type Told } from '@/api'
import { useHouse } from '@/features/rail'
import { useAtBench, type Act } from '@/shared/person'
import { t } from '@/words/screening'

type Asks = '' | 'recipe' | 'kind' | 'day' | 'words' | 'reason' | 'signature' | 'work' | 'set'
interface Doing {
  value: string
  label: string
  asks: Asks
  may: Act
  run: (tickets: string[], with_: string) => Promise<Told[]>
}

const props = defineProps<{ ticked: string[]; rows: ScreenRow[] }>()
const emit = defineEmits<{ acted: [tickets: string[]]; leave: [] }>()
const house = useHouse()
const atBench = useAtBench()

const change = (field: string) => (tickets: string[], now: string) => answerOf(api.PATCH('/api/many/particulars', { body: { tickets, field, now } }))
const ACTS: Doing[] = [
  { value: 'kind', label: t('are_here_for'), asks: 'kind', may: 'arrive', run: change('kind') },
  { value: 'recipe', label: t('follow_the_recipe'), asks: 'recipe', may: 'measure', run: (tickets, recipe) => answerOf(api.PUT('/api/many/targets', { body: { tickets, recipe: recipe || null, reason: t('the_same_for_all_that') } })) },
  { value: 'promised', label: t('are_promised_for'), asks: 'day', may: 'arrive', run: change('promised') },
  { value: 'deadline', label: t('are_needed_for'), asks: 'day', may: 'arrive', run: change('deadline') },
  { value: 'owner', label: t('belong_to'), asks: 'words', may: 'arrive', run: change('owner') },
  { value: 'work', label: t('had_this_work_done'), asks: 'work', may: 'measure', run: (tickets, work) => answerOf(api.POST('/api/many/works', { body: { tickets, work, words: '' } })) },
  { value: 'strings', label: t('got_these_strings_now'), asks: 'set', may: 'measure', run: (tickets, set_id) => answerOf(api.POST('/api/many/strings', { body: { tickets, set_id, put_on_now: true } })) },
  { value: 'pass', label: t('need_no_looking_over_beyond'), asks: 'reason', may: 'sign_off', run: (tickets, reason) => answerOf(api.POST('/api/many/pass-over', { body: { tickets, step: 'look', reason } })) },
  { value: 'hand_over', label: t('are_handed_over'), asks: 'signature', may: 'sign_off', run: (tickets, reason) => answerOf(api.POST('/api/many/hand-over', { body: { tickets, reason, pin: pin.value, all_right: allRight.value, next_check: null } })) },
]

const pin = ref('')
const allRight = ref(false)
const doing = ref('kind')
const given = ref('')
const told = ref<Told[]>([])
const failure = ref('')
const isDoing = ref(false)
const field = ref<HTMLSelectElement | null>(null)
const recipes = ref<string[]>([])
const sets = ref<SetView[]>([])
const works = computed(() => (house.choices?.works ?? []).filter((row) => row.for_many && row.key !== 'other_work'))
const offered = computed(() => ACTS.filter((row) => atBench.may(row.may)))
const act = computed(() => offered.value.find((row) => row.value === doing.value) ?? offered.value[0])
const families = computed(() => [...new Set(props.rows.filter((row) => props.ticked.includes(row.ticket)).map((row) => row.family))])
const done = computed(() => told.value.filter((one) => one.done).map((one) => one.ticket))
const undone = computed(() => told.value.filter((one) => !one.done))
const handedOver = ref<string[]>([])

watch(
  [() => act.value?.value, () => families.value.join(), () => house.choices !== null] as const,
  async ([doing], before) => {
    const asks = act.value?.asks
    if (doing !== before?.[0] || given.value === '') given.value = asks === 'kind' ? (house.choices?.kinds[0]?.key ?? '') : ''
    if (asks !== 'recipe' && asks !== 'set') return
    try {
      if (asks === 'set') {
        const found = await Promise.all(families.value.map((family) => answerOf(api.GET('/api/string-sets/{family}', { params: { path: { family: family as 'violin' } } }))))
        sets.value = found.flat()
        return
      }
      const all = await Promise.all(families.value.map((family) => answerOf(api.GET('/api/recipes/{family}', { params: { path: { family: family as 'violin' } } }))))
      recipes.value = [...new Set(all.flatMap((one) => one.recipes.map((recipe) => recipe.name)))]
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  },
  { immediate: true },
)

async function run(work: (tickets: string[]) => Promise<Told[]>, tickets: string[]): Promise<void> {
  isDoing.value = true
  failure.value = ''
  try {
    told.value = await work(tickets)
    emit('acted', tickets)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  } finally {
    isDoing.value = false
  }
}
async function send(): Promise<void> {
  const [chosen, value] = [act.value, given.value.trim()]
  if (!chosen || !props.ticked.length || isDoing.value) return
  if ((chosen.asks === 'work' || chosen.asks === 'set') && !value) {
    failure.value = t('choose_one_first')
    return
  }
  if ((chosen.asks === 'reason' || (chosen.asks === 'signature' && !allRight.value)) && !value) {
    failure.value = t('say_why_it_is_kept')
    return
  }
  await run((tickets) => chosen.run(tickets, value), [...props.ticked])
  pin.value = ''
  handedOver.value = chosen.value === 'hand_over' && !failure.value ? done.value : []
}
async function takeThemBack(): Promise<void> {
  await run((tickets) => answerOf(api.POST('/api/many/hand-over/take-back', { body: { tickets } })), handedOver.value)
  if (!failure.value) handedOver.value = []
}
function leave(): void {
  emit('leave')
}

defineExpose({ begin: () => void nextTick(() => field.value?.focus()) })
</script>

<template>
  <form class="acts" :aria-label="t('with_those_ticked')" @submit.prevent="send" @keydown.esc.stop.prevent="leave">
    <span class="count">{{ ticked.length ? `${ticked.length} ticked` : t('none_ticked') }}</span>
    <select ref="field" v-model="doing" :aria-label="t('what_is_said_of_them')" :disabled="!ticked.length">
      <option v-for="row in offered" :key="row.value" :value="row.value">{{ row.label }}</option>
    </select>
    <select v-if="act?.asks === 'kind'" v-model="given" :aria-label="t('kind_of_visit')" :disabled="!ticked.length">
      <option v-for="kind in house.choices?.kinds ?? []" :key="kind.key" :value="kind.key">{{ kind.label }}</option>
    </select>
    <select v-else-if="act?.asks === 'recipe'" v-model="given" :aria-label="t('recipe')" :disabled="!ticked.length">
      <option value="">{{ t('the_shops_own') }}</option>
      <option v-for="name in recipes" :key="name">{{ name }}</option>
    </select>
    <select v-else-if="act?.asks === 'work'" v-model="given" :aria-label="t('work')" :disabled="!ticked.length">
      <option value="">{{ t('choose') }}</option>
      <option v-for="row in works" :key="row.key" :value="row.key">{{ row.label }}</option>
    </select>
    <select v-else-if="act?.asks === 'set'" v-model="given" :aria-label="t('set_of_strings')" :disabled="!ticked.length">
      <option value="">{{ t('choose') }}</option>
      <option v-for="one in sets" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
    <input v-else-if="act?.asks === 'day'" v-model="given" type="date" :aria-label="t('day')" :disabled="!ticked.length" />
    <template v-else-if="act?.asks === 'signature'">
      <label><input v-model="allRight" type="checkbox" /> {{ t('check_at_pitch_done_on') }}</label>
      <input v-model="given" type="text" :placeholder="t('why_points_stay_open')" :aria-label="t('why_points_stay_open')" maxlength="500" :disabled="!ticked.length" />
      <input v-model="pin" type="password" inputmode="numeric" autocomplete="off" class="pin" :placeholder="t('pin')" :aria-label="t('pin')" maxlength="200" :disabled="!ticked.length" />
    </template>
    <input v-else-if="act?.asks" v-model="given" type="text" :aria-label="act.asks === 'reason' ? t('reason') : t('owner')" maxlength="500" :disabled="!ticked.length" />
    <v-btn type="submit" variant="flat" :disabled="!ticked.length" :loading="isDoing">{{ t('apply_to_selected', { ticked: ticked.length }) }}</v-btn>
    <span v-if="done.length && !isDoing" role="status">{{ t('done', { done: done.length }) }}</span>
    <v-btn v-if="handedOver.length" type="button" @click="takeThemBack">{{ t('undo_hand_over') }}</v-btn>
    <p v-for="one in undone" :key="one.ticket" class="fault" role="alert">{{ one.ticket }}: {{ one.sentence }}</p>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
  </form>
</template>

<style scoped>
.acts {
  position: sticky;
  bottom: 52px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 8px 12px;
  border-top: 1px solid var(--ink);
  background: var(--sheet);
  border-radius: 0 0 4px 4px;
}
.pin {
  width: 96px;
}
input[type='checkbox'] {
  min-height: 0;
}
.count {
  min-width: 92px;
  font-weight: 700;
}
select,
input {
  min-height: var(--hit);
  padding: 0 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
input[type='text'] {
  flex: 1;
  min-width: 200px;
}
:disabled {
  opacity: 0.5;
}
.fault {
  flex-basis: 100%;
  margin: 0;
}
@media (max-width: 640px) {
  .acts {
    position: static;
  }
  select,
  input {
    max-width: 100%;
  }
}
</style>
