<script setup lang="ts">
/** The reading in hand: its band, age, taker, doubt; and what the keys do with it. */
import { computed } from 'vue'
import type { Cell } from '@/api'
import BandRuler from '@/shared/BandRuler.vue'
import { ago, firstFew, plain } from '@/shared/format'
import { DIRECTION_WORDS } from '@/shared/directions'
import { inches } from '@/shared/inches'
import { useHouse } from '@/features/rail'
import { useAtBench } from '@/shared/person'
import type { Held } from './useHeld'
import { t } from '@/words/bench'

const props = defineProps<{ cell: Cell; refused: string | null; draft: string; stopped: boolean; held: Held }>()
const emit = defineEmits<{ take: []; keep: []; suggested: []; why: []; tool: []; enterHeld: []; discardHeld: [] }>()

const atBench = useAtBench()
const house = useHouse()
const inInches = computed(() => (atBench.inches && props.cell.unit === 'mm' && props.cell.value !== null ? inches(props.cell.value) : ''))
/** A doubt or a refusal names the place itself. */
const isSpeaking = computed(() => props.refused !== null || (props.cell.state === 'doubted' && !props.draft && !props.stopped))
/** What is held comes first: where it goes is said before anything else of the place in hand. */
const isHolding = computed(() => props.held.entries.length > 0 && !props.stopped)
const usable = computed(() => (props.cell.state === 'current' ? props.cell.value : null))
const suggested = computed(() => props.cell.doubt?.suggested ?? null)
/** What the next reading here is taken with, and which way. */
const tool = computed(() => {
  const name = atBench.toolFor(props.cell.measure, props.cell.tools)
  const found = house.choices?.tools.find((one) => one.tool === name)
  const direction = found && /_height$/.test(props.cell.measure) ? `, ${DIRECTION_WORDS[found.direction as keyof typeof DIRECTION_WORDS]}` : ''
  return `${found?.label ?? name}${direction}`
})
const origin = computed(() => {
  const { taken_at: at, taken_by: by, tool, direction, read, typed } = props.cell
  if (at === null || by === null) return ''
  if (read && direction) return t('read_so_here', { typed, read: DIRECTION_WORDS[read], direction: DIRECTION_WORDS[direction], tool, by, ago: ago(at) })
  return `${tool}${direction ? `, ${DIRECTION_WORDS[direction]}` : ''}, ${by}, ${ago(at)}`
})
</script>

<template>
  <Teleport to="#in-hand" defer>
  <div class="in-hand" aria-live="polite">
    <template v-if="isHolding">
      <b class="held">{{ t('held', { entries: firstFew(held.entries) }) }}</b>
      <v-btn size="small" @click="emit('enterHeld')">{{ t('enter_held_here', { name: cell.name }) }}</v-btn>
      <v-btn size="small" @click="emit('discardHeld')">{{ t('discard_held') }}</v-btn>
    </template>
    <b v-if="!isSpeaking && !isHolding" class="name">{{ cell.name }}</b>
    <button v-if="cell.tools.length > 1 && !isHolding" type="button" class="plain-button tool" @click="emit('tool')"><span class="only-read">{{ t('read_with') }}{{ ' ' }}</span><kbd>t</kbd> {{ tool }}<span class="only-read">{{ t('another_tool') }}</span></button>
    <span v-else-if="!isHolding" class="tool">{{ tool }}</span>
    <template v-if="refused">
      <span class="refused">{{ refused }}</span>
    </template>
    <template v-else-if="cell.state === 'doubted' && cell.doubt && !draft && !stopped">
      <span v-if="!isHolding" class="asks">{{ cell.doubt.sentence }}</span>
      <v-btn v-if="suggested !== null" size="small" @click="emit('suggested')">{{ t('take_2', { plain: plain(suggested) }) }}</v-btn>
      <v-btn v-if="cell.doubt.may_be_kept" size="small" @click="emit('keep')"><kbd>Enter</kbd>{{ t('keeps', { plain: plain(cell.doubt.value) }) }}</v-btn>
    </template>
    <template v-else-if="!isHolding">
      <BandRuler v-if="cell.band" :low="cell.band.low" :aim="cell.band.aim" :high="cell.band.high" :value="usable" :side="cell.band.side" :outside-by="cell.band.outside_by" />
      <span v-if="cell.stale_because" class="stale">{{ t('stale', { stale_because: cell.stale_because }) }}</span>
      <span v-if="cell.last_time !== null" class="last">{{ t('last_time') }} <b>{{ plain(cell.last_time) }}</b><template v-if="cell.last_time_at">, {{ ago(cell.last_time_at) }}</template></span>
      <span v-if="inInches">{{ t('about', { in_inches: inInches }) }}</span>
      <span v-if="origin" class="origin">{{ origin }}</span>
      <button type="button" class="plain-button why" @click="emit('why')">{{ t('why') }}</button>
    </template>
    <v-btn v-if="draft" class="take" size="small" variant="flat" @click="emit('take')">{{ t('take_3', { draft }) }}</v-btn>
  </div>
  </Teleport>
</template>

<style scoped>
.in-hand {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  min-height: 46px;
}
.origin {
  flex: 0 9 auto;
  min-width: 0;
  height: 1.4em;
  line-height: 1.4;
  overflow: hidden;
  white-space: normal;
}
/* A word that has no room goes to the next line, which is not shown: none is cut in two. */
.origin::before {
  content: '';
  display: inline-block;
}
@media (max-width: 640px) {
  .origin {
    display: none;
  }
}
.held {
  flex: 0 1 auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.asks {
  flex: 0 1 auto;
  min-width: 0;
  white-space: normal;
  line-height: 1.2;
}
@media (min-width: 1001px) {
  .in-hand {
    flex-wrap: nowrap;
    max-height: 46px;
    overflow: hidden;
    white-space: nowrap;
  }
  .name,
  .last,
  .why {
    flex: none;
  }
  .stale {
    flex: 0 1 auto;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
}
.name::first-letter {
  text-transform: uppercase;
}
.refused {
  color: var(--error);
  font-weight: 700;
}
.stale {
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
  padding: 2px 8px;
}
.why {
  min-height: var(--hit);
  min-width: var(--hit);
  text-decoration: underline;
  text-align: center;
}
.tool {
  flex: none;
  min-height: var(--hit);
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
button.tool {
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
.take {
  margin-left: auto;
}
kbd {
  margin-right: 6px;
  font: inherit;
}
.tool kbd {
  min-width: 22px;
  padding: 0 5px;
  text-align: center;
  font-weight: 700;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
</style>
