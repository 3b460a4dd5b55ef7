<script setup lang="ts">
/** What one instrument follows: its recipe, its own schools, targets read elsewhere; the numbers first, then it is taken. */
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, Refused, type FollowBody, type Preview, type SourceBody } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { focusChosen } from '@/shared/focus'
import { useLatest, useLoaded } from '@/shared/loaded'
import QuestionChoices from './QuestionChoices.vue'
import TargetChanges from './TargetChanges.vue'
import TargetLines from './TargetLines.vue'
import { SourceKind, sourceKey, sourceOf } from './sources'
import { t } from '@/words/recipes'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })

const refused = ref('')
const preview = ref<Preview | null>(null)
const isAsking = ref(false)
const reason = ref('')
/** What is chosen on this page; nothing of it holds until it is taken. */
const asked = reactive({
  recipe: null as string | null,
  schools: {} as Record<string, string>,
  sources: {} as Record<string, string>,
})
const choices = ref<HTMLElement | null>(null)
const reasonField = ref<HTMLInputElement | null>(null)

const shopRecipe = computed(() => following.value?.recipes.find((recipe) => recipe.shop) ?? null)
const recipe = computed(
  () => following.value?.recipes.find((candidate) => candidate.name === asked.recipe) ?? shopRecipe.value,
)
const chosen = computed(() => ({ ...recipe.value?.schools, ...asked.schools }))
const isSame = computed(() => {
  const now = following.value
  if (!now) return true
  const sources = Object.fromEntries(now.sources.map((source) => [source.measure, sourceKey(source.kind, source.of)]))
  return (
    asked.recipe === now.recipe &&
    JSON.stringify(sorted(asked.schools)) === JSON.stringify(sorted(now.own)) &&
    JSON.stringify(sorted(asked.sources)) === JSON.stringify(sorted(sources))
  )
})
function sorted(record: Record<string, string>): [string, string][] {
  return Object.entries(record).sort()
}

function reset(): void {
  const now = following.value
  if (!now) return
  asked.recipe = now.recipe
  asked.schools = { ...now.own }
  asked.sources = Object.fromEntries(now.sources.map((source) => [source.measure, sourceKey(source.kind, source.of)]))
  reason.value = ''
  refused.value = ''
}
const { found: following, failure } = useLoaded(
  () => props.ticket,
  (ticket) => answerOf(api.GET('/api/instruments/{ticket}/targets', { params: { path: { ticket } } })),
  () => {
    reset()
    focusChosen(() => choices.value)
  },
)

function chooseRecipe(name: string): void {
  asked.recipe = name === '' ? null : name
  /* Another recipe is taken whole: what differed from the old one does not linger. */
  asked.schools = {}
}
function chooseSchool(question: string, school: string): void {
  const others = Object.fromEntries(Object.entries(asked.schools).filter(([name]) => name !== question))
  asked.schools = recipe.value?.schools[question] === school ? others : { ...others, [question]: school }
}
function chooseSource(measure: string, key: string): void {
  const others = Object.fromEntries(Object.entries(asked.sources).filter(([name]) => name !== measure))
  asked.sources = key === SourceKind.recipe ? others : { ...others, [measure]: key }
}

function body(): FollowBody {
  const sources: Record<string, SourceBody> = {}
  for (const [measure, key] of Object.entries(asked.sources)) sources[measure] = sourceOf(key)
  return { recipe: asked.recipe, schools: { ...asked.schools }, sources }
}

const latest = useLatest()
watch(asked, () => void look(), { deep: true })
async function look(): Promise<void> {
  refused.value = ''
  const [path, choice] = [{ ticket: props.ticket }, body()]
  isAsking.value = !isSame.value
  await latest(
    () => (isSame.value ? Promise.resolve(null) : answerOf(api.POST('/api/instruments/{ticket}/targets/preview', { params: { path }, body: choice }))),
    (answer) => (preview.value = answer),
    (message) => {
      preview.value = null
      refused.value = message
    },
    () => (isAsking.value = false),
  )
}

const isTaking = ref(false)
async function take(): Promise<void> {
  if (isSame.value || refused.value || isTaking.value) return
  const of = props.ticket
  isTaking.value = true
  try {
    if (bench.ticket !== of) await bench.open(of)
    await bench.chooseTargets(body(), reason.value)
    // Whoever went on meanwhile is not called back.
    if (of === props.ticket && router.currentRoute.value.name === 'recipe') toSheet()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (of === props.ticket) refused.value = error.message
  } finally {
    isTaking.value = false
  }
}
/** Enter on a school goes on to the reason, and from there takes. */
function onEnter(event: KeyboardEvent): void {
  if (!(event.target instanceof HTMLInputElement)) return
  event.preventDefault()
  reasonField.value?.focus()
}
/** The focus stays with what is chosen: Space on another radio would choose it again. */
function leave(): void {
  reset()
  focusChosen(() => choices.value)
}
function toSheet(): void {
  void router.push({ name: 'bench', params: { ticket: props.ticket } })
}

const sourceChoices = computed(() => {
  const now = following.value
  if (!now) return []
  return [
    { key: SourceKind.recipe, label: t('the_recipe') },
    { key: sourceKey('as_found', ''), label: t('as_found_at_this_visit') },
    ...now.earlier_visits.map((visit) => ({ key: sourceKey('visit', visit.key), label: t('as_at', { label: visit.label }) })),
    ...now.others_here.map((ticket) => ({ key: sourceKey('instrument', ticket), label: t('as_stands', { ticket }) })),
  ]
})

useCommands([
  { letter: 't', own: true, words: t('take_it'), run: () => void take(), possible: () => !isSame.value && !refused.value },
  { letter: 'x', own: true, words: t('leave_it_as_it_was'), run: leave, possible: () => !isSame.value },
  { letter: 'e', words: t('back_to_the_sheet'), run: toSheet },
])
</script>

<template>
  <p v-if="failure" class="missing" role="alert">{{ failure }}</p>
  <p v-else-if="!following" class="missing">{{ t('loading') }}</p>
  <InstrumentFrame v-else :ticket="ticket" page="recipe" :title="t('recipe_of', { ticket })" :label="t('recipe_and_schools')">
    <template #head>
      <span>{{ following.family }} {{ following.size }}</span>
      <router-link class="link" :to="{ name: 'recipes', params: { family: following.family } }">{{ t('the_shops_recipes') }}</router-link>
      <router-link class="link" :to="{ name: 'figures', params: { family: following.family }, query: { size: following.size } }">{{ t('figures') }}</router-link>
    </template>
    <div ref="choices" class="choices" @keydown.enter="onEnter">
      <section class="recipe">
        <label for="recipe">{{ t('recipe') }}</label>
        <select id="recipe" :value="asked.recipe ?? ''" @change="chooseRecipe(($event.target as HTMLSelectElement).value)">
          <option value="">{{ t('the_shops', { name: shopRecipe?.name }) }}</option>
          <option v-for="candidate in following.recipes" :key="candidate.name" :value="candidate.name">{{ candidate.name }}</option>
        </select>
        <span class="hint">{{ t('a_school_chosen_below_is') }}</span>
      </section>
      <QuestionChoices
        :questions="following.questions"
        :chosen="chosen"
        :against="recipe?.schools ?? {}"
        :against-name="recipe?.name ?? ''"
        @choose="chooseSchool"
      />
      <section class="sources" :aria-label="t('where_targets_come_from')">
        <h2>{{ t('where_targets_come_from') }}</h2>
        <div v-for="measure in following.measures" :key="measure.key" class="source" :class="{ differs: measure.key in asked.sources }">
          <label :for="`source-${measure.key}`">{{ measure.label }}</label>
          <select
            :id="`source-${measure.key}`"
            :value="asked.sources[measure.key] ?? SourceKind.recipe"
            @change="chooseSource(measure.key, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="choice in sourceChoices" :key="choice.key" :value="choice.key">{{ choice.label }}</option>
          </select>
        </div>
      </section>
    </div>
    <template #todo>
      <template v-if="isSame">
        <h2>{{ t('targets_now') }}</h2>
        <p v-if="following.reason" class="reason">“{{ following.reason }}”</p>
        <TargetLines :lines="following.lines" />
      </template>
      <template v-else>
        <h2>{{ t('what_changes') }}</h2>
        <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
        <p v-else-if="preview?.problem" class="refused" role="alert">{{ preview.problem }}</p>
        <label class="why">
          <span>{{ t('reason') }}</span>
          <input ref="reasonField" v-model="reason" maxlength="500" autocomplete="off" @keydown.enter.prevent="take" />
        </label>
        <p v-if="isAsking && !preview" role="status">{{ t('computing') }}</p>
        <div v-if="preview && !refused" class="numbers" aria-live="polite">
          <TargetChanges :changes="preview.changes" :same="preview.same" />
        </div>
      </template>
    </template>
    <template #main>
      <div v-if="!isSame" class="acts">
        <v-btn @click="leave">{{ t('discard') }}</v-btn>
        <v-btn variant="flat" :disabled="!!refused || isAsking" @click="take">{{ t('apply') }}</v-btn>
      </div>
    </template>
  </InstrumentFrame>
</template>

<style scoped>
h2 {
  font-size: var(--type-text);
  margin: 0 0 4px;
}
.link {
  min-height: var(--hit);
  padding-top: 10px;
  color: var(--action);
}
.recipe,
.sources {
  margin-bottom: 10px;
  padding: 8px 16px;
  background: var(--sheet);
  border-radius: var(--corner);
}
.recipe {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
}
.recipe label {
  font-weight: 700;
}
.hint {
  color: var(--quiet);
}
select {
  min-height: var(--hit);
  max-width: 100%;
  padding: 0 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.source {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  align-items: center;
  gap: 0 12px;
  min-height: 52px;
  border-top: 1px solid var(--hairline);
}
.source.differs {
  box-shadow: inset 4px 0 0 var(--action);
  margin-left: -12px;
  padding-left: 12px;
  font-weight: 700;
}
.reason {
  margin: 0 0 8px;
}
.refused {
  padding: 8px 12px;
  margin: 0 0 8px;
  border: 2px solid var(--error);
  border-radius: var(--corner);
  font-weight: 700;
}
.why {
  display: block;
  margin: 10px 0 12px;
}
.why span {
  display: block;
}
.why input {
  width: 100%;
  min-height: var(--hit);
  padding: 2px 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.acts {
  display: flex;
  gap: 8px;
}
.missing {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 640px) {
  .source {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 6px;
  }
}
</style>
