<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { ArrivalDialog } from '@/features/arrival'
import { RailOfTags, useHouse } from '@/features/rail'
import CommandStrip from '@/shared/CommandStrip.vue'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'

const route = useRoute()
const router = useRouter()
const theme = useTheme()
const house = useHouse()
const atBench = useAtBench()
const arrivalOpen = ref(false)
const benchOpen = ref(false)
const open = computed(() => String(route.params.ticket ?? ''))

const toolLabel = computed(
  () => house.choices?.tools.find((choice) => choice.tool === atBench.tool)?.label ?? atBench.tool,
)

watch(() => atBench.theme, (name) => theme.change(name), { immediate: true })
const TITLES: Record<string, string> = { figures: 'Figures', recipes: 'Recipes' }
watch(
  () => [open.value, route.name] as const,
  ([ticket, page]) => {
    const title = ticket || TITLES[String(page)]
    document.title = title ? `${title} · Fidicula` : 'Fidicula'
  },
  { immediate: true },
)
watch(
  () => house.choices?.takers,
  (takers) => {
    if (atBench.person === 'bench' && takers?.[0]) atBench.person = takers[0]
  },
)
onMounted(() => void house.load())

useCommands([
  { letter: 'n', general: true, words: 'new arrival', run: () => (arrivalOpen.value = true) },
  { letter: 'g', general: true, words: 'figures', run: () => void router.push({ name: 'figures' }) },
  { letter: 'r', general: true, words: "the shop's recipes", run: () => void router.push({ name: 'recipes' }) },
  { letter: 'l', general: true, words: 'lamp or day', run: () => (atBench.theme = atBench.theme === 'day' ? 'lamp' : 'day') },
  { letter: 'b', general: true, words: 'who is at the bench', run: () => (benchOpen.value = true) },
])
</script>

<template>
  <v-app>
    <RailOfTags :open="open">
      <div class="right">
        <v-btn @click="arrivalOpen = true">New arrival</v-btn>
      </div>
    </RailOfTags>
    <router-view />
    <CommandStrip>
      <template #right>
        <button type="button" class="plain-button who" @click="benchOpen = true">{{ atBench.person }}, {{ toolLabel }}</button>
      </template>
    </CommandStrip>
    <ArrivalDialog v-model="arrivalOpen" />
    <v-dialog v-model="benchOpen">
      <v-card>
        <v-card-title tag="h2">At the bench</v-card-title>
        <v-card-text class="bench">
          <v-combobox v-model="atBench.person" autofocus label="Who takes the readings" :items="house.choices?.takers ?? []" />
          <v-select
            v-model="atBench.tool"
            label="Tool in the hand"
            :items="house.choices?.tools ?? []"
            item-value="tool"
            item-title="label"
            hint="A wedge, card or feeler reads the shortest way to the board; the others straight up."
            persistent-hint
          />
        </v-card-text>
        <v-card-actions class="actions"><v-btn variant="flat" @click="benchOpen = false">Done</v-btn></v-card-actions>
      </v-card>
    </v-dialog>
  </v-app>
</template>

<style scoped>
.right {
  padding-top: 10px;
}
.right :deep(.v-btn) {
  height: 50px;
}
.bench {
  display: grid;
  gap: 16px;
}
.actions {
  padding: 8px 24px 20px;
}
.who {
  min-height: 44px;
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
</style>
