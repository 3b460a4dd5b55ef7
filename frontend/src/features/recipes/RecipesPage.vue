<script setup lang="ts">
/** The shop's recipes of one family: which it follows, what each wants, and what a change would do in numbers. */
import { computed, reactive, ref, watch } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { type Family, answerOf, api, Refused, type RecipeNumbers, type RecipesOfFamily } from '@/api'
import { useCommands } from '@/shared/commands'
import { focusChosen } from '@/shared/focus'
import FamilyTabs from '@/shared/FamilyTabs.vue'
import { freshId } from '@/shared/id'
import PageWithSide from '@/shared/PageWithSide.vue'
import { useAtBench } from '@/shared/person'
import QuestionChoices from './QuestionChoices.vue'
import TargetChanges from './TargetChanges.vue'
import { t } from '@/words/recipes'


const props = defineProps<{ family: string }>()
const atBench = useAtBench()
const path = computed(() => ({ family: props.family as Family }))

const page = ref<RecipesOfFamily | null>(null)
const failure = ref('')
const refused = ref('')
const said = ref('')
const open = ref('')
/** The recipe that the open one is compared with; empty for the open one as it is kept. */
const beside = ref('')
const size = ref('')
const name = ref('')
const chosen = reactive<Record<string, string>>({})
const choices = ref<HTMLElement | null>(null)
const nameField = ref<HTMLInputElement | null>(null)
const numbers = ref<RecipeNumbers | null>(null)

const recipe = computed(() => page.value?.recipes.find((candidate) => candidate.name === open.value) ?? null)
const other = computed(() => page.value?.recipes.find((candidate) => candidate.name === beside.value) ?? recipe.value)
const isChanged = computed(() =>
  Object.entries(recipe.value?.schools ?? {}).some(([question, school]) => chosen[question] !== school),
)
const mayKeep = computed(() => atBench.may('recipes'))
const isShipped = computed(() => page.value?.shipped.includes(open.value) ?? false)

function show(now: RecipesOfFamily, name: string): void {
  page.value = now
  const shop = now.recipes.find((candidate) => candidate.shop)
  openRecipe(now.recipes.some((candidate) => candidate.name === name) ? name : (shop?.name ?? ''))
  if (!now.sizes.includes(size.value)) size.value = now.sizes[0] ?? ''
}
function openRecipe(of: string): void {
  open.value = of
  name.value = of
  refused.value = ''
  if (beside.value === of) beside.value = ''
  Object.assign(chosen, recipe.value?.schools)
}

watch(
  () => props.family,
  async (family) => {
    failure.value = ''
    said.value = ''
    beside.value = ''
    page.value = null
    try {
      const answer = await answerOf(api.GET('/api/recipes/{family}', { params: { path: { family: family as Family } } }))
      if (family === props.family) show(answer, '')
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  },
  { immediate: true },
)

let newest = 0
watch([chosen, size, other], () => void look(), { deep: true })
async function look(): Promise<void> {
  const before = other.value?.schools
  if (!before || size.value === '') return
  const mine = ++newest
  try {
    const body = { size: size.value, before, after: { ...chosen } }
    const answer = await answerOf(api.POST('/api/recipes/{family}/numbers', { params: { path: path.value }, body }))
    if (mine === newest) numbers.value = answer
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === newest) refused.value = error.message
  }
}

async function change(request: () => Promise<RecipesOfFamily>, of: string, words: string): Promise<void> {
  refused.value = ''
  try {
    show(await request(), of)
    said.value = words
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    refused.value = error.message
  }
}
/** Enter on a school goes on to the name, and from there keeps. */
function onEnter(event: KeyboardEvent): void {
  if (!(event.target instanceof HTMLInputElement)) return
  event.preventDefault()
  nameField.value?.focus()
}
/** The focus stays with what is chosen: Space on another radio would choose it again. */
function leave(): void {
  openRecipe(open.value)
  focusChosen(() => choices.value)
}
function named(of: string) {
  return { params: { path: { ...path.value, name: of } } }
}
function entry() {
  return { id: freshId() }
}
function keep(): void {
  const of = name.value.trim()
  const body = { ...entry(), schools: { ...chosen } }
  if (of === '') refused.value = t('give_the_recipe_a_name')
  else void change(() => answerOf(api.PUT('/api/recipes/{family}/{name}', { ...named(of), body })), of, t('is_kept', { of }))
}
function follow(): void {
  const of = open.value
  void change(
    () => answerOf(api.POST('/api/recipes/{family}/{name}/follow', { ...named(of), body: entry() })),
    of,
    t('the_shop_follows_for_the', { of, family: props.family }),
  )
}
function retire(): void {
  const of = open.value
  const words = isShipped.value ? t('is_back_as_it_came', { of }) : t('is_off_the_list', { of })
  void change(
    () => answerOf(api.POST('/api/recipes/{family}/{name}/retire', { ...named(of), body: entry() })),
    isShipped.value ? of : '',
    words,
  )
}
function to(family: string): RouteLocationRaw {
  return { name: 'recipes', params: { family } }
}

useCommands([
  { letter: 'k', own: true, words: t('save_the_recipe'), run: keep, possible: () => mayKeep.value && (isChanged.value || name.value !== open.value) },
  { letter: 'x', own: true, words: t('leave_it_as_it_was'), run: leave, possible: () => isChanged.value },
  { letter: 't', own: true, words: t('set_as_shop_default'), run: follow, possible: () => mayKeep.value && !isChanged.value && recipe.value?.shop === false },
])
</script>

<template>
  <PageWithSide :side-label="t('in_numbers')" :stuck="isChanged || beside !== ''">
    <template #head>
      <h1>{{ t('recipes') }}</h1>
      <FamilyTabs :family="family" :to="to" />
      <router-link class="link" :to="{ name: 'figures', params: { family } }">{{ t('figures_of_the', { family }) }}</router-link>
    </template>
    <p v-if="failure" class="missing" role="alert">{{ failure }}</p>
    <p v-else-if="!page" class="missing">{{ t('fetching_the_recipes') }}</p>
    <main v-else ref="choices" class="choices" :aria-label="t('recipe_and_schools')" @keydown.enter="onEnter">
        <div class="recipes" role="group" :aria-label="t('recipes')">
          <button
            v-for="candidate in page.recipes"
            :key="candidate.name"
            type="button"
            class="plain-button recipe"
            :class="{ here: candidate.name === open }"
            :aria-pressed="candidate.name === open"
            @click="openRecipe(candidate.name)"
          >
            {{ candidate.name }}<span v-if="candidate.shop" class="shop">{{ t('the_shops_2') }}</span>
          </button>
        </div>
        <QuestionChoices
          :questions="page.questions"
          :chosen="chosen"
          :against="other?.schools ?? {}"
          :against-name="other?.name === open ? t('so_far', { open }) : (other?.name ?? '')"
          @choose="(question, school) => (chosen[question] = school)"
        />
      </main>
    <template v-if="page" #side>
        <p v-if="said" class="said" role="status">{{ said.charAt(0).toUpperCase() + said.slice(1) }}.</p>
        <div class="against">
          <label><span>{{ t('compare_with') }}</span>
            <select v-model="beside">
              <option value="">{{ t('as_it_is_kept', { open }) }}</option>
              <option v-for="candidate in page.recipes.filter((r) => r.name !== open)" :key="candidate.name" :value="candidate.name">{{ candidate.name }}</option>
            </select>
          </label>
          <label><span>{{ t('on_a', { family }) }}</span>
            <select v-model="size">
              <option v-for="one in page.sizes" :key="one" :value="one">{{ one }}</option>
            </select>
          </label>
        </div>
        <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
        <form class="keep" @submit.prevent="keep">
          <label><span>{{ t('name') }}</span><input ref="nameField" v-model="name" maxlength="40" autocomplete="off" /></label>
          <div class="acts">
            <v-btn v-if="mayKeep" type="submit" variant="flat" :disabled="!isChanged && name === open">{{ name.trim() === open || name.trim() === '' ? t('save') : t('save_as_new') }}</v-btn>
            <v-btn v-if="isChanged" @click="leave">{{ t('discard') }}</v-btn>
            <v-btn v-if="mayKeep && !isChanged && recipe && !recipe.shop" @click="follow">{{ t('set_as_shop_default_2') }}</v-btn>
            <v-btn v-if="mayKeep && !isChanged && recipe && !recipe.shop && !isShipped" @click="retire">{{ t('remove') }}</v-btn>
            <v-btn v-if="mayKeep && !isChanged && isShipped" @click="retire">{{ t('reset_to_starting_value') }}</v-btn>
          </div>
        </form>
        <div v-if="numbers" aria-live="polite">
          <p v-if="!isChanged && !beside" class="hint">{{ t('choose_another_school_or_a') }}</p>
          <TargetChanges
            v-else
            :changes="numbers.changes"
            :same="numbers.lines.length - numbers.changes.length"
            :before="other?.name === open ? t('as_kept') : other?.name"
            :after="isChanged ? t('changed') : open"
          />
          <p v-if="(isChanged || beside) && numbers.strings" class="hint">{{ t('reckoned_with_plain_figures_and', { strings: numbers.strings }) }}</p>
        </div>
    </template>
  </PageWithSide>
</template>

<style scoped>
.link {
  margin-left: auto;
  min-height: var(--hit);
  padding-top: 10px;
  color: var(--action);
}
.recipes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.recipe {
  min-height: var(--main-button);
  padding: 0 14px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.recipe.here {
  background: var(--chosen);
  color: var(--on-chosen);
  font-weight: 700;
}
.shop {
  margin-left: 8px;
  padding-left: 8px;
  border-left: 1px solid currentColor;
  font-weight: 400;
}
.against {
  display: flex;
  gap: 12px;
  margin-bottom: 10px;
}
.against label:first-child {
  flex: 1;
  min-width: 0;
}
label span {
  display: block;
  color: var(--quiet);
}
select,
.keep input {
  width: 100%;
  min-height: var(--hit);
  padding: 0 8px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.said {
  padding-bottom: 8px;
  margin: 0 0 8px;
  border-bottom: 1px solid var(--hairline);
}
.hint {
  margin: 6px 0;
  color: var(--quiet);
}
.refused {
  padding: 8px 12px;
  margin: 0 0 8px;
  border: 2px solid var(--error);
  border-radius: var(--corner);
  font-weight: 700;
}
.keep {
  margin-bottom: 12px;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--hairline);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
.missing {
  grid-column: 1 / -1;
  padding: 40px 8px;
  font-size: var(--type-label);
}
</style>
