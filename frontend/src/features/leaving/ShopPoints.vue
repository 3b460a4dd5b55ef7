<script setup lang="ts">
/** The shop’s list of what is looked at before an instrument leaves: worded, added to, left out. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { FAMILIES, answerOf, api, Refused, type Family, type ShopPoint } from '@/api'
import { useCommands } from '@/shared/commands'
import { useFormEntry } from '@/shared/entry'
import { freshId } from '@/shared/id'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/leaving'

const router = useRouter()
const atBench = useAtBench()
const points = ref<ShopPoint[]>([])
const opened = ref<string | null>(null)
const failure = ref('')
/** One of the list, as it stands; the next of the shop's own where none is. */
const { draft: form, message, faults, isSending, begin, send, clear } = useFormEntry({
  kind: 'closing_point',
  of: () => opened.value ?? '',
  empty: () => {
    const point = points.value.find((one) => one.point === opened.value)
    return { label: point?.label ?? '', look: point?.look ?? '', means: point?.means ?? '', families: (point?.families ?? []) as Family[] }
  },
})

async function run(ask: () => Promise<ShopPoint[]>): Promise<boolean> {
  failure.value = ''
  try {
    points.value = await ask()
    return true
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
    return false
  }
}
void run(() => answerOf(api.GET('/api/closing-points')))

function edit(point: ShopPoint | null): void {
  opened.value = point?.point ?? ''
  begin()
}
async function save(): Promise<void> {
  const of = opened.value
  await send(async (id, typed) => {
    const point = of || `own_${id.replaceAll('-', '')}`
    points.value = await answerOf(api.PUT('/api/closing-points/{point}', { params: { path: { point } }, body: { id, ...typed } }))
  }, () => (opened.value = null))
}
function cancel(): void {
  clear()
  opened.value = null
}
const leaveOut = (point: string) => run(() => answerOf(api.POST('/api/closing-points/{point}/leave-out', { params: { path: { point } }, body: { id: freshId() } })))
const askAgain = (point: ShopPoint) =>
  run(() =>
    answerOf(
      api.PUT('/api/closing-points/{point}', {
        params: { path: { point: point.point } },
        body: { id: freshId(), label: point.label, look: point.look, means: point.means, families: point.families as Family[] },
      }),
    ),
  )
function toggle(family: Family): void {
  const there = form.value.families
  form.value.families = there.includes(family) ? there.filter((one) => one !== family) : [...there, family]
}
const ofFamilies = (point: ShopPoint) => point.families.join(', ') || t('all')
useCommands([
  { letter: 'a', own: true, words: t('add_a_point'), run: () => edit(null), possible: () => atBench.may('recipes') },
  { letter: 'e', own: true, words: t('back'), run: () => router.back() },
])
</script>

<template>
  <main class="page" :aria-label="t('checklist_of_the_shop')">
    <header>
      <h1>{{ t('checklist_of_the_shop_2') }}</h1>
      <v-btn v-if="atBench.may('recipes')" variant="flat" @click="edit(null)">{{ t('add_a_point_2') }}</v-btn>
    </header>
    <p>{{ t('looked_at_on_every_instrument') }}</p>
    <p v-if="failure && opened === null" class="fault" role="alert">{{ failure }}</p>
    <form v-if="opened !== null" class="form" @submit.prevent="save" @keydown.esc.prevent="opened = null">
      <label>{{ t('what_is_looked_at') }} <input v-model="form.label" autofocus class="entry" maxlength="500" /></label>
      <p v-if="faults.label" class="fault" role="alert">{{ faults.label }}</p>
      <label>{{ t('how') }} <input v-model="form.look" class="entry" maxlength="500" /></label>
      <label>{{ t('what_it_would_mean_to') }} <input v-model="form.means" class="entry" maxlength="500" /></label>
      <div class="families" role="group" :aria-label="t('asked_for')">
        <button v-for="family in FAMILIES" :key="family" type="button" class="choice" :aria-pressed="form.families.includes(family)" @click="toggle(family)">{{ family }}</button>
        <span>{{ form.families.length ? '' : t('all_families') }}</span>
      </div>
      <p v-if="message && !Object.keys(faults).length" class="fault" role="alert">{{ message }}</p>
      <div class="acts"><v-btn @click="cancel">{{ t('cancel') }}</v-btn><v-btn type="submit" variant="flat" :loading="isSending">{{ t('save_point') }}</v-btn></div>
    </form>
    <ul>
      <li v-for="point in points" :key="point.point" :class="{ out: !point.is_asked }">
        <div><b>{{ point.label }}</b><span v-if="!point.is_asked">{{ ' ' }}{{ t('not_asked') }}</span><span v-else-if="!point.comes_along">{{ ' ' }}{{ t('the_shops_own') }}</span><span v-else-if="point.is_changed">{{ ' ' }}{{ t('worded_by_the_shop') }}</span><small>{{ point.look }}</small></div>
        <span>{{ ofFamilies(point) }}</span>
        <div v-if="atBench.may('recipes')" class="acts">
          <v-btn v-if="point.is_asked" size="small" @click="edit(point)">{{ t('edit') }}</v-btn>
          <v-btn v-if="point.is_asked" size="small" @click="leaveOut(point.point)">{{ t('leave_out') }}</v-btn>
          <v-btn v-else size="small" @click="askAgain(point)">{{ t('ask_again') }}</v-btn>
        </div>
      </li>
    </ul>
  </main>
</template>

<style scoped>
.page {
  max-width: 960px;
  margin: 6px auto 80px;
  padding: 6px 24px 24px;
  background: var(--sheet);
  border-radius: var(--corner);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h1 {
  font-size: var(--type-title);
  margin: 0;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 140px 190px;
  gap: 12px;
  align-items: center;
  min-height: 52px;
  border-top: 1px solid var(--hairline);
}
small {
  display: block;
  color: var(--quiet);
  font-size: var(--type-note);
}
.out b {
  font-weight: 400;
}
.form {
  display: grid;
  gap: 8px;
  padding: 12px;
  margin: 12px 0;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.families,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.acts {
  justify-content: flex-end;
}
.choice {
  min-height: var(--hit);
  padding: 0 12px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: transparent;
  color: var(--ink);
  font: inherit;
}
.choice[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
@media (max-width: 640px) {
  li {
    grid-template-columns: 1fr;
    padding: 8px 0;
  }
}
</style>
