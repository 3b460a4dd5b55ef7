<script setup lang="ts">
/** The frame of every page of an instrument: its visit on top, the instrument itself, the work, and what to do now.
 * Nothing but the columns scrolls where there is room; the main button is pinned and always in sight. */
import { useElementBounding, useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Stop } from '@/api'
import { useBench } from '@/features/bench'
import { CourseString } from '@/features/course'
import { besideAt, InstrumentMap, MapStrip, partOf, type PartName } from '@/features/map'
import { useCommands } from '@/shared/commands'
import type { PageName } from '@/shared/pages'
import { COLUMNS } from './columns'
import { t } from '@/words/frame'

/** What is about the whole instrument. */
type Whole = 'sheet' | 'measure' | 'look' | 'recipe' | 'plan' | 'billing' | 'leave' | 'history' | 'papers' | 'belongings' | 'damage'
const WITHOUT_PART: readonly string[] = ['measure', 'look', 'recipe', 'plan', 'billing', 'leave', 'history', 'papers', 'belongings', 'damage']
const props = defineProps<{
  ticket: string
  /** The page that is open: of a part, or one about the whole. */
  page: PageName | Whole
  title: string
  /** What the work is called to somebody who does not see it. */
  label: string
}>()
const emit = defineEmits<{ stop: [stop: Stop] }>()
const router = useRouter()
const bench = useBench()
const sheet = computed(() => (bench.sheet?.instrument.ticket === props.ticket ? bench.sheet : null))
const here = computed((): PartName | '' => {
  if (props.page === 'sheet') return 'bridge'
  return WITHOUT_PART.includes(props.page) ? '' : partOf(props.page as PageName)
})
const beside = computed(() => besideAt(props.ticket, here.value, sheet.value?.instrument.family ?? ''))

const frame = ref<HTMLElement | null>(null)
/** Over it stand the rail and, now and then, the bar that says what waits; its own parts share what is left. */
const { top } = useElementBounding(frame)
/** Room for the instrument itself; and for the work and what to do beside each other. */
const isRoomy = useMediaQuery('(min-width: 1180px) and (min-height: 620px)')
const isWide = useMediaQuery(COLUMNS)
const height = computed(() => (isWide.value ? `calc(100dvh - ${Math.round(top.value) + 8}px - var(--foot))` : 'auto'))

const map = ref<InstanceType<typeof InstrumentMap> | null>(null)
useCommands([{ letter: ',', words: t('the_parts'), run: () => map.value?.focus(), possible: () => map.value !== null }])

const WHOLE = [
  { page: 'measure', words: t('measure'), name: 'measure' },
  { page: 'look', words: t('inspection'), name: 'look' },
  { page: 'damage', words: t('damage'), name: 'damage' },
  { page: 'sound', words: t('sound'), name: 'sound' },
  { page: 'plan', words: t('plan'), name: 'plan' },
  { page: 'billing', words: t('invoice'), name: 'billing' },
  { page: 'history', words: t('history'), name: 'history' },
  { page: 'paper', words: t('papers'), name: 'paper' },
  { page: 'belongings', words: t('belongings'), name: 'belongings' },
  { page: 'leave', words: t('hand_over'), name: 'leave' },
] as const

function open(stop: Stop): void {
  if (stop.key.startsWith('planned:')) {
    void router.push({ name: 'plan', params: { ticket: props.ticket } })
    return
  }
  if (props.page === 'sheet') emit('stop', stop)
  else if (stop.key === 'look') void router.push({ name: 'look', params: { ticket: props.ticket } })
  else void router.push({ name: 'bench', params: { ticket: props.ticket }, query: { step: stop.key } })
}
</script>

<template>
  <div ref="frame" class="frame" :style="{ height }">
    <CourseString v-if="sheet" :stops="sheet.course" class="course" @open="open" />
    <div class="columns" :class="{ alone: !$slots.todo }">
      <aside class="map-column">
        <InstrumentMap v-if="isRoomy && sheet" ref="map" :instrument="sheet.instrument" :parts="sheet.parts" :here="here" />
        <MapStrip v-else-if="sheet" :instrument="sheet.instrument" :parts="sheet.parts" :here="here" />
        <nav class="whole" :aria-label="t('the_whole_instrument')">
          <router-link
            v-for="one in WHOLE"
            :key="one.page"
            :to="{ name: one.name, params: { ticket } }"
            :aria-current="one.page === page ? 'page' : undefined"
          >{{ one.words }}</router-link>
        </nav>
      </aside>
      <main class="work" :aria-label="label">
        <header class="head">
          <h1>{{ title }}</h1>
          <slot name="head" />
          <nav v-if="beside.length" class="beside" :aria-label="t('pages_of_this_part')">
            <router-link v-for="one in beside" :key="one.key" :to="one.to" :aria-current="one.key === page ? 'page' : undefined">{{ one.words }}</router-link>
          </nav>
        </header>
        <slot />
      </main>
      <aside v-if="$slots.todo" class="todo" :aria-label="t('to_do')">
        <div class="scrolls"><slot name="todo" /></div>
        <div v-if="$slots.main" class="pinned"><slot name="main" /></div>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  flex-direction: column;
  padding: 2px 16px 0;
}
/* As high as what the frame leaves, whatever stands in it: a letter that changes lays out its own column alone. */
.columns {
  flex: 1;
  min-height: 0;
  contain: size;
  display: grid;
  grid-template-columns: 232px minmax(0, 1fr) 312px;
  grid-template-rows: minmax(0, 1fr);
  gap: 12px;
}
.columns.alone {
  grid-template-columns: 232px minmax(0, 1fr);
}
.map-column,
.work,
.todo {
  background: var(--sheet);
  border-radius: var(--corner);
  min-height: 0;
}
.map-column {
  display: flex;
  flex-direction: column;
  padding: 4px 0 8px;
}
.map-column :deep(.map) {
  flex: 1;
}
.whole {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 6px 8px 0;
}
.whole a {
  flex: 1 1 auto;
  padding: 0 4px;
  font-size: var(--type-note);
  min-height: var(--hit);
  line-height: 42px;
  text-align: center;
  font-weight: 700;
  color: var(--action);
  text-decoration: none;
  border: 1px solid var(--action);
  border-radius: var(--corner);
}
.whole [aria-current='page'] {
  color: var(--on-chosen);
  background: var(--chosen);
  border-color: var(--ink);
}
.work {
  position: relative;
  overflow: auto;
  scrollbar-width: thin;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 14px;
  min-height: var(--hit);
  padding: 2px 18px 0;
}
h1 {
  margin: 0;
  font-size: var(--type-title);
  line-height: 1.3;
}
.beside {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  margin-left: auto;
}
.beside a {
  white-space: nowrap;
  min-height: var(--hit);
  padding: 0 7px;
  line-height: 44px;
  color: var(--ink);
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
.beside [aria-current='page'] {
  font-weight: 700;
  text-decoration: none;
  box-shadow: inset 0 -3px 0 var(--ink);
}
.todo {
  display: flex;
  flex-direction: column;
}
.scrolls {
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: auto;
  scrollbar-width: thin;
  padding: 14px 16px 8px;
  font-size: var(--type-text);
  line-height: 1.45;
}
.pinned {
  padding: 8px 16px 12px;
  border-top: 1px solid var(--hairline);
}
.pinned:empty {
  display: none;
}
@media (max-width: 1179px), (max-height: 619px) {
  .columns,
  .columns.alone {
    grid-template-columns: minmax(0, 1fr) 312px;
    grid-template-rows: auto minmax(0, 1fr);
    gap: 8px;
  }
  .columns.alone {
    grid-template-columns: minmax(0, 1fr);
  }
  .map-column {
    grid-column: 1 / -1;
    flex-direction: row;
    align-items: center;
    gap: 8px;
    padding: 0;
    min-width: 0;
    overflow: hidden;
  }
  .map-column :deep(.strip) {
    flex: 1;
    min-width: 0;
  }
  .whole {
    display: flex;
    padding: 0 6px 0 0;
  }
  .whole a {
    padding: 0 10px;
  }
}
/* The parts would be squeezed beside all that is about the whole: each has a row of its own. */
@media (max-width: 1023px) {
  .map-column {
    flex-direction: column;
    align-items: stretch;
    gap: 2px;
    padding: 0 0 6px;
  }
}
@media (max-width: 899px), (max-height: 619px) {
  .columns,
  .columns.alone {
    contain: none;
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: none;
    padding-bottom: 132px;
  }
  .work {
    overflow: visible;
  }
  .scrolls {
    overflow: visible;
  }
  .pinned {
    position: fixed;
    inset: auto 0 var(--foot) 0;
    z-index: 4;
    background: var(--sheet);
    border-top: 2px solid var(--ink);
  }
}
@media (max-width: 640px) {
  .frame {
    padding: 2px 0 0;
  }
  .map-column {
    flex-direction: column;
    align-items: stretch;
    gap: 0;
  }
  .whole {
    gap: 4px;
    padding: 4px 6px;
  }
  .whole a {
    padding: 0 2px;
  }
}
</style>
