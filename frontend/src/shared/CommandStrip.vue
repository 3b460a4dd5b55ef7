<script setup lang="ts">
import { useCssVar, useElementSize, useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useCommands, type Command } from './commands'
import { useAtBench } from './person'
import { t } from '@/words/shared'

const { commands } = useCommands()
const atBench = useAtBench()
const isOpen = ref(false)
/** Of this page alone: Space once more. */
const isOwn = ref(false)
const ownOnes = computed(() => commands.value.filter((command) => command.own))
const shown = computed(() => (isOwn.value ? ownOnes.value : commands.value.filter((command) => !command.own)))
const unknown = ref('')
const strip = ref<HTMLElement | null>(null)
let cameFrom: HTMLElement | null = null
let hasLeftByTab = false
/** What stands over the foot keeps clear of it, however much it holds. */
const foot = ref<HTMLElement | null>(null)
const { height } = useElementSize(foot, { width: 0, height: 48 }, { box: 'border-box' })
const room = useCssVar('--foot', document.documentElement)
watch(height, (now) => (room.value = `${Math.round(now || 48)}px`), { immediate: true })

function open(): void {
  cameFrom = document.activeElement instanceof HTMLElement ? document.activeElement : null
  unknown.value = ''
  isOwn.value = false
  hasLeftByTab = false
  isOpen.value = true
  void nextTick(() => strip.value?.focus())
}

function close(): void {
  isOpen.value = false
  cameFrom?.focus()
}

/** An open strip keeps the keys: what a page puts the focus on meanwhile has it once the strip closes. */
function onFocus(event: FocusEvent): void {
  const target = event.target instanceof HTMLElement ? event.target : null
  if (!isOpen.value || !target || strip.value?.contains(target)) return
  if (hasLeftByTab || target.closest('.v-overlay')) {
    isOpen.value = false
    return
  }
  cameFrom = target
  strip.value?.focus()
}
useEventListener(window, 'focusin', onFocus)
useEventListener(window, 'pointerdown', (event) => {
  if (isOpen.value && event.target instanceof Element && !foot.value?.contains(event.target)) isOpen.value = false
}, { capture: true })

function run(command: Command): void {
  close()
  command.run()
}

function showOwn(): void {
  isOwn.value = true
  strip.value?.focus()
}

function onKey(event: KeyboardEvent): void {
  hasLeftByTab = event.key === 'Tab'
  if (event.key === ' ' && !isOwn.value && ownOnes.value.length) {
    event.preventDefault()
    showOwn()
    return
  }
  if (event.key === 'Escape' || event.key === ' ') {
    event.preventDefault()
    close()
    return
  }
  if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  const command = shown.value.find((candidate) => candidate.letter === event.key.toLowerCase())
  if (command) run(command)
  else unknown.value = event.key
}

/** Space belongs to the strip where no button and no words have the focus. */
function onWindowKey(event: KeyboardEvent): void {
  if (event.key !== ' ' || !atBench.bareKeys || isOpen.value || event.defaultPrevented) return
  const target = event.target instanceof Element ? event.target : document.body
  // A chosen radio has no use for Space, so that a page of choices has its commands too.
  const takesSpace =
    'button, a, select, textarea, [role="option"], [role="radio"], input:not([data-reading], [type="radio"]:checked)'
  // Within a reading it stands before the unit, as some calipers send it; a second one opens the strip all the same.
  if (target instanceof HTMLInputElement && target.dataset.reading !== undefined && /\S$/.test(target.value)) return
  const isLeftFromClick = clicked !== null && clicked === target
  if ((target.closest(takesSpace) && !isLeftFromClick) || document.querySelector('.v-overlay--active.v-dialog')) return
  event.preventDefault()
  open()
}

/** A button that was clicked keeps the focus, and not Space: that never does once more what a pointer did. */
let clicked: Element | null = null
useEventListener(window, 'pointerdown', (event) => {
  clicked = event.target instanceof Element ? event.target.closest('button, a') : null
}, { capture: true })
useEventListener(window, 'focusin', (event) => {
  if (event.target !== clicked) clicked = null
})

const OF_FIELDS = 'button, a, select, textarea, input:not([data-reading])'

/** Esc lets go of a button, link or field, so that Space reaches the strip from anywhere. */
function onEscape(event: KeyboardEvent): void {
  if (event.key !== 'Escape' || event.defaultPrevented || isOpen.value) return
  const target = event.target instanceof HTMLElement ? event.target : null
  if (target?.closest(OF_FIELDS) && !target.closest('.v-overlay')) target.blur()
}

useEventListener(window, 'keydown', onWindowKey)
useEventListener(window, 'keydown', onEscape)
</script>

<template>
  <footer ref="foot" class="foot only-screen">
    <button v-if="!isOpen" type="button" class="plain-button opener" @click="open">
      <kbd>Space</kbd> {{ t('commands') }}
    </button>
    <div v-show="!isOpen" id="in-hand" class="hint"></div>
    <span v-if="!isOpen" class="right"><slot name="right" /></span>
    <div v-if="isOpen" ref="strip" class="strip" role="menu" :aria-label="t('commands_2')" tabindex="-1" @keydown.stop="onKey">
      <button
        v-for="command in shown"
        :key="command.letter"
        type="button"
        role="menuitem"
        class="plain-button command"
        @click="run(command)"
      >
        <kbd>{{ command.letter }}</kbd> {{ command.words }}
      </button>
      <button v-if="!isOwn && ownOnes.length" type="button" role="menuitem" class="plain-button command" @click="showOwn"><kbd>Space</kbd> {{ t('this_page') }}</button>
      <span class="leave" role="status">
        <template v-if="unknown">{{ t('no_command', { unknown }) }}{{ ' ' }}</template><kbd>Esc</kbd> {{ t('leaves') }}
      </span>
    </div>
  </footer>
</template>

<style scoped>
.foot {
  position: fixed;
  inset: auto 0 0 0;
  z-index: 5;
  display: flex;
  align-items: center;
  gap: 20px;
  min-height: var(--main-button);
  padding: 0 16px;
  background: var(--felt);
  border-top: 2px solid var(--ink);
}
.opener {
  min-height: var(--hit);
  min-width: 120px;
}
.hint {
  flex: 1;
  min-width: 0;
}
.right {
  white-space: nowrap;
}
.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
  outline: none;
  padding: 4px 0;
}
.command {
  min-height: var(--hit);
  white-space: nowrap;
}
.leave {
  color: var(--quiet);
}
kbd {
  display: inline-block;
  min-width: 24px;
  padding: 1px 6px;
  text-align: center;
  font: inherit;
  font-weight: 700;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
/* A phone has no Space to press. */
@media (max-width: 640px), (hover: none) {
  .opener kbd {
    display: none;
  }
}
@media (max-width: 1000px) {
  .foot {
    flex-wrap: wrap;
    gap: 0 12px;
  }
  .hint {
    order: -1;
    flex-basis: 100%;
  }
  .right {
    margin-left: auto;
  }
}
</style>
