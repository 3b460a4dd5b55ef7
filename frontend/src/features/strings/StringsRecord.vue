<script setup lang="ts">
/** Which strings are on it, one by one; how they settle; what was on it before, and when it sounded best. */
import { computed, ref, watch } from 'vue'
import { answerOf, api, Refused, type StringsView } from '@/api'
import { useBench } from '@/features/bench'
import { ago, day, mm, plain, until } from '@/shared/format'
import { post, useOutbox, type Act } from '@/outbox'
import { useFormEntry } from '@/shared/entry'
import { useAtBench } from '@/shared/person'
import StringsDialog from './StringsDialog.vue'
import { t } from '@/words/strings'

const props = defineProps<{ ticket: string }>()
const bench = useBench()
const outbox = useOutbox()
const atBench = useAtBench()
const view = ref<StringsView | null>(null)
const failure = ref('')
const isChanging = ref(false)
const isTuning = ref(false)
const { draft: tuning, faults, message, isSending, begin, send } = useFormEntry({ kind: 'retuning', isOpenAgainAtOnce: true, of: () => props.ticket, empty: () => ({ cents: {} as Record<number, string>, remark: '' }) })
const mayAct = computed(() => atBench.may('measure') && !bench.sheet?.instrument.handed_over_at)

let asked = 0
async function ask(request: () => Promise<StringsView | null>): Promise<boolean> {
  const mine = ++asked
  try {
    const found = await request()
    if (mine !== asked) return false
    view.value = found
    failure.value = ''
    return true
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === asked) failure.value = error.message
    return false
  }
}
const path = () => ({ ticket: props.ticket })
const load = () => ask(() => answerOf(api.GET('/api/instruments/{ticket}/strings', { params: { path: path() } })))
watch(() => props.ticket, () => {
  view.value = null
  isTuning.value = false
})
watch([() => props.ticket, () => bench.sheet], () => void load(), { immediate: true })

const names = computed(() => view.value?.string_names ?? [])
/** In the order in which the strings lie seen from the tailpiece, as on the card. */
const positions = computed(() => {
  const all = names.value.map((_, i) => i)
  return bench.sheet?.instrument.left_handed ? all.reverse() : all
})
/** Strings of one set that went on together stand in one row. */
const groups = computed(() => {
  const found: { names: string; first: StringsView['strings'][number]; strings: StringsView['strings'] }[] = []
  for (const string of view.value?.strings ?? []) {
    const same = found.find(({ first }) => first.set_name === string.set_name && first.served === string.served)
    if (same) Object.assign(same, { names: `${same.names} ${string.name}`, strings: [...same.strings, string] })
    else found.push({ names: string.name, first: string, strings: [string] })
  }
  return found
})
function openTuning(): void {
  isTuning.value = !isTuning.value
  if (isTuning.value) begin()
}
async function tune(): Promise<void> {
  await send((id, { cents, remark }) => {
    const body = { id, cents: names.value.map((_, i) => cents[i] ?? ''), remark }
    return submit(post('/api/instruments/{ticket}/retunings', { params: { path: path() }, body, words: t('tuned_again') }))
  }, () => (isTuning.value = false))
}
async function takeBack(retuning_id: string): Promise<void> {
  try {
    await submit(post('/api/instruments/{ticket}/retunings/{retuning_id}/take-back', { params: { path: { ...path(), retuning_id } }, words: t('undo_tuned_again') }))
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  }
}
/** What it says shows where the server has it. Throws Refused. */
async function submit(act: Act): Promise<void> {
  const of = props.ticket
  const done = await outbox.submit(act, { visit: bench.sheet?.instrument.visit_id ?? '' })
  if (!done.sent || of !== props.ticket) return
  asked += 1
  view.value = done.answer as StringsView
}
const gone = (value: number | null) => (value === null ? '' : value > 0 ? `+${mm(value, 0)}` : mm(value, 0))
const STEPS = { first: t('before'), do: t('in_this_order'), caution: t('take_care') }
</script>

<template>
  <section v-if="view" class="record" :aria-label="t('the_strings_on_it')">
    <table v-if="view.strings.length">
      <tbody>
        <tr v-for="group in groups" :key="group.names">
          <th scope="row">{{ group.names }}</th>
          <td>
            <b>{{ group.first.set_name }}</b>, {{ group.first.material }}, <span :class="{ past: group.first.is_past }">{{ group.first.served }}</span>
            <span class="each"><span v-for="string in group.strings" :key="string.name">{{ string.name }} {{ mm(string.diameter) }}{{ string.tension === null ? '' : `, ${plain(string.tension)} N` }}</span></span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else>{{ t('nobody_has_said_which_strings') }}</p>
    <p v-if="view.hours_a_week" class="quiet">{{ t('played_about_hours_a_week', { plain: plain(view.hours_a_week) }) }}</p>
    <p v-if="view.best">{{ view.best }}</p>
    <div v-if="mayAct" class="ways">
      <v-btn variant="flat" @click="isChanging = true">{{ view.strings.length ? t('change_strings') : t('name_strings') }}</v-btn>
      <v-btn v-if="view.strings.length" @click="openTuning">{{ t('tuned_again') }}</v-btn>
    </div>
    <form v-if="isTuning" :aria-label="t('tuned_again')" class="tune" @submit.prevent="tune">
      <p class="quiet">{{ t('how_far_each_had_gone') }}</p>
      <label v-for="i in positions" :key="i">{{ names[i] }}<input v-model="tuning.cents[i]" inputmode="text" maxlength="20" autocomplete="off" :aria-invalid="!!faults[i]" /></label>
      <label class="wide">{{ t('to_remember') }}<input v-model="tuning.remark" maxlength="400" autocomplete="off" /></label>
      <p v-if="message" class="fault wide" role="alert">{{ message }}</p>
      <v-btn type="submit" variant="flat" :loading="isSending">{{ t('save_tuning') }}</v-btn>
    </form>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    <template v-if="view.checks.length">
      <h2>{{ t('settling') }}</h2>
      <ul>
        <li v-for="check in view.checks" :key="check.label">
          {{ check.label }}: <template v-if="check.done_at">{{ t('looked_at', { ago: ago(check.done_at) }) }}</template><b v-else-if="check.is_due">{{ t('due_tune_heights_the_bridge') }}</b><template v-else>{{ t('from_on', { until: until(check.due) }) }}</template>
        </li>
      </ul>
      <p v-if="view.drift">{{ view.drift }}</p>
    </template>
    <details v-if="view.retunings.length">
      <summary>{{ t('tuned_again_times', { retunings: view.retunings.length }) }}</summary>
      <ul>
        <li v-for="one in view.retunings" :key="one.id">
          {{ one.at ? ago(one.at) : '' }}, {{ one.by }}: <span v-for="(value, i) in one.cents" :key="i">{{ value === null ? '' : `${names[i]} ${gone(value)} ` }}</span> {{ one.remark }}
          <v-btn v-if="mayAct" size="small" @click="takeBack(one.id)">{{ t('undo_this_entry') }}</v-btn>
        </li>
      </ul>
    </details>
    <details>
      <summary>{{ t('when_new_ones_go_on') }}</summary>
      <template v-for="(title, kind) in STEPS" :key="kind">
        <ul :class="kind">
          <li v-for="step in view.steps.filter((one) => one.kind === kind)" :key="step.says"><b>{{ title }}:</b> {{ step.says }}. <span class="quiet">{{ step.because }}</span></li>
        </ul>
      </template>
    </details>
    <details v-if="view.fitted.length">
      <summary>{{ t('what_was_on_it') }}</summary>
      <ul>
        <li v-for="one in view.fitted" :key="one.work_id">{{ day(one.at) }} {{ one.at.slice(0, 4) }}: {{ one.says }} <span class="quiet">{{ one.by }}</span></li>
      </ul>
      <ul v-if="view.removed.length">
        <li v-for="(one, i) in view.removed" :key="i">{{ t('of_came_off', { name: one.name, set_name: one.set_name, day: day(one.at), fate: one.fate }) }}</li>
      </ul>
    </details>
    <StringsDialog v-if="bench.sheet" v-model="isChanging" :sheet="bench.sheet" :change="!!view?.strings.length" />
  </section>
  <p v-else role="status">{{ failure || t('looking_at_the_strings') }}</p>
</template>

<style scoped>
.record {
  display: grid;
  gap: 8px;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--hairline);
  font-weight: 400;
  text-align: left;
}
tbody th {
  font-size: var(--type-target);
  font-weight: 700;
  white-space: nowrap;
}
.each {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
.quiet {
  color: var(--quiet);
}
.past {
  font-weight: 700;
}
p,
ul {
  margin: 0;
}
ul {
  padding-left: 18px;
}
h2 {
  margin: 6px 0 0;
  font-size: var(--type-text);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
summary {
  min-height: 36px;
  padding: 6px 0;
  cursor: pointer;
}
.tune {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  padding: 10px 14px;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.tune p {
  flex-basis: 100%;
}
.tune input {
  display: block;
  width: 90px;
  min-height: var(--hit);
  padding: 4px 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: var(--type-target);
}
.tune .wide input {
  width: 240px;
  font-size: var(--type-text);
}
.caution li {
  padding: 4px 10px;
  border-left: 5px solid var(--above);
  background: var(--note);
}
</style>
