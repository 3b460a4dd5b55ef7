<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { Refused } from '@/api'
import { GuessBar, PasswordAgain, SignIn } from '@/features/people'
import { RailOfTags, useHouse } from '@/features/rail'
import { OutboxBar } from '@/features/outbox'
import { useToolCheck } from '@/features/tools'
import CommandStrip from '@/shared/CommandStrip.vue'
import { useCommands } from '@/shared/commands'
import { PAGES, type PageName } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import ListeningIn from './ListeningIn.vue'
import { t } from '@/words/app'

const BenchDialog = defineAsyncComponent(() => import('@/features/people/away').then((feature) => feature.BenchDialog))
const ToolCheckDialog = defineAsyncComponent(() => import('@/features/tools/away').then((feature) => feature.ToolCheckDialog))
/** What the door needs comes after what the bench needs. */
const ArrivalDialog = defineAsyncComponent(() => import('@/features/arrival').then((feature) => feature.ArrivalDialog))
const FleetDialog = defineAsyncComponent(() => import('@/features/arrival').then((feature) => feature.FleetDialog))

const RETRY_AFTER_MS = 2500

const route = useRoute()
const router = useRouter()
const theme = useTheme()
const house = useHouse()
const atBench = useAtBench()
const arrivalOpen = ref(false)
const benchOpen = ref(false)
const fleetOpen = ref(false)
const { isOpen: toolOpen, tool: toolChecked } = useToolCheck()
/** Once a tool was checked here its dialog stays at hand. */
const checksTool = computed(() => toolOpen.value || toolChecked.value !== '')
const open = computed(() => String(route.params.ticket ?? ''))

watch(() => atBench.theme, (name) => theme.change(name), { immediate: true })
const TITLES: Record<string, string> = {
  plan: t('plan'),
  estimate: t('estimate'),
  billing: t('invoice'),
  document: t('invoice'),
  drawers: t('drawers'),
  look: t('inspection'),
  measure: t('measuring'),
  sound: t('sound'),
  paper: t('papers'),
  'working-sheet': t('working_sheet'),
  leave: t('hand_over'),
  history: t('history'),
  ask: t('ask_the_house_2'),
  archives: t('archives'),
  'closing-points': t('checklist'),
  blank: t('blank_card'),
  recipe: t('recipe'),
   figures: t('figures'), recipes: t('recipes'), people: t('people'), audit: t('audit'), screening: t('screening') }
watch(
  [open, () => route.name, () => route.params.page] as const,
  ([ticket, name, page]) => {
    const title = [ticket, name === 'page' ? PAGES[page as PageName] : TITLES[String(name)]].filter(Boolean).join(' · ')
    document.title = title ? `${title} · Fidicula` : 'Fidicula'
  },
  { immediate: true },
)
/** Whoever goes to another page with the keyboard goes on there: what had the focus is gone with the page before. */
router.afterEach(async (to, from) => {
  if (to.path === from.path) return
  await nextTick()
  window.scrollTo(0, 0)
  if (document.activeElement === null || document.activeElement === document.body) toMain()
})

const isAway = ref(false)
async function begin(): Promise<void> {
  try {
    await atBench.load()
    isAway.value = false
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    isAway.value = true
    setTimeout(() => void begin(), RETRY_AFTER_MS)
  }
}
onMounted(() => void begin())
watch(() => atBench.signedIn !== null, (now) => {
  if (now) void house.load()
})

function toMain(): void {
  const main = document.querySelector<HTMLElement>('main')
  main?.setAttribute('tabindex', '-1')
  main?.focus({ preventScroll: true })
}
const isIn = () => atBench.signedIn !== null
useCommands([
  { letter: 'n', general: true, words: t('new_arrival'), run: () => (arrivalOpen.value = true), possible: () => atBench.may('arrive') },
  { letter: 'v', general: true, words: t('new_fleet'), run: () => (fleetOpen.value = true), possible: () => atBench.may('arrive') },
  { letter: 'z', general: true, words: t('triage'), run: () => void router.push({ name: 'screening' }), possible: isIn },
  { letter: 'g', general: true, words: t('figures_2'), run: () => void router.push({ name: 'figures' }), possible: isIn },
  { letter: 'r', general: true, words: t('the_shops_recipes'), run: () => void router.push({ name: 'recipes' }), possible: isIn },
  { letter: '=', general: true, words: t('drawers_and_prices'), run: () => void router.push({ name: 'drawers' }), possible: isIn },
  { letter: '?', general: true, words: t('ask_the_house'), run: () => void router.push({ name: 'ask' }), possible: isIn },
  { letter: ']', general: true, words: t('archives_and_tables'), run: () => void router.push({ name: 'archives' }), possible: isIn },
  { letter: 'p', general: true, words: t('people_and_devices'), run: () => void router.push({ name: 'people' }), possible: isIn },
  { letter: ';', general: true, words: t('audit_2'), run: () => void router.push({ name: 'audit' }), possible: () => atBench.may('sign_off') },
  { letter: 'l', general: true, words: t('lamp_or_day_theme'), run: () => (atBench.theme = atBench.theme === 'day' ? 'lamp' : 'day') },
  { letter: 'b', general: true, words: t('who_is_at_the_bench'), run: () => (benchOpen.value = true), possible: isIn },
])
</script>

<template>
  <v-app>
    <template v-if="atBench.signedIn">
      <a class="skip only-screen" href="#main" @click.prevent="toMain">{{ t('skip_to_the_work') }}</a>
      <RailOfTags :open="open" :bare="route.name === 'house'">
        <div class="right">
          <v-btn v-if="atBench.may('arrive')" @click="arrivalOpen = true">{{ t('new_arrival_2') }}</v-btn>
        </div>
      </RailOfTags>
      <OutboxBar />
      <GuessBar />
      <router-view />
      <ListeningIn />
      <CommandStrip>
        <template #right>
          <button type="button" class="plain-button who" @click="benchOpen = true">{{ atBench.person }}</button>
        </template>
      </CommandStrip>
      <ArrivalDialog v-model="arrivalOpen" />
      <FleetDialog v-model="fleetOpen" />
      <PasswordAgain />
      <BenchDialog v-model="benchOpen" />
      <ToolCheckDialog v-if="checksTool" />
      <v-dialog :model-value="atBench.isOut" fullscreen persistent no-click-animation :transition="false">
        <SignIn over class="over" />
      </v-dialog>
    </template>
    <SignIn v-else-if="atBench.isLoaded" />
    <p v-else class="coming" role="status">{{ isAway ? t('the_server_does_not_answer') : t('opening') }}</p>
  </v-app>
</template>

<style scoped>
.skip {
  position: fixed;
  top: -60px;
  left: 16px;
  z-index: 9;
  padding: 10px 16px;
  background: var(--sheet);
  color: var(--ink);
  border: 2px solid var(--ink);
}
.skip:focus {
  top: 6px;
}
.over {
  background: var(--felt);
}
.right {
  padding-top: 10px;
}
.right :deep(.v-btn) {
  height: 50px;
}
.coming {
  padding: 40px 24px;
  font-size: var(--type-label);
}
.who {
  min-height: var(--hit);
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
</style>
