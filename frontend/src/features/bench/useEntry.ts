/** The reading in hand: which place digits go to, what is typed there, and where Enter leads. */
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch, type ComputedRef, type Ref } from 'vue'
import type { Cell } from '@/api'
import { plain } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import { nextAsked, onTheirWay, stillAsked } from './asked'
import { keyOf, neighbour, type Direction } from './places'
import { leaps, type Stop } from './stop'
import { useBench } from './store'
import { useHeld, type Held } from './useHeld'
import { t } from '@/words/bench'

export interface UseEntryReturn {
  inHand: Ref<string>
  cell: ComputedRef<Cell | null>
  draft: ComputedRef<string>
  setDraft: (text: string) => void
  onKey: (event: KeyboardEvent) => void
  goTo: (key: string) => void
  takeNow: (repeats: boolean, simulated?: boolean) => void
  takeSuggested: () => void
  /** The next of the tools that read what is in hand. */
  nextTool: () => void
  /** The reading that leapt and waits for a word, at the place in hand; null where none does. */
  stop: ComputedRef<Stop | null>
  /** What is said of it. */
  stopWords: ComputedRef<string | null>
  /** Let the reading that leapt count, and go on. */
  keepStopped: () => void
  /** What was typed while it waited, for the places that follow. */
  held: ComputedRef<Held>
  /** The first that was held is what was meant here. */
  takeHeldHere: () => void
  /** Enter what is held from the place in hand on. */
  enterHeld: () => void
  discardHeld: () => void
}

/** Controls that digits and arrows belong to. */
const TAKES_DIGITS =
  'input, textarea, select, [contenteditable], [role="menu"], [role="dialog"], [role="slider"], [role="radio"], [role="listbox"], [role="combobox"], [role="gridcell"], .v-overlay'
/** Nut and crown both move the heights at the board's end: no work leaves them standing. */
const MOVES_WITH_ANY_WORK = 'end_height'
const STARTS_A_READING = /^[0-9.,+\-−]$/

export interface EntryOptions {
  /** The places that are gone through, in their order; those of the bench card by itself. */
  cells?: ComputedRef<Cell[]>
  /** Where an arrow leads; over the card's rows and columns by itself. */
  neighbour?: (key: string, direction: Direction) => string
}

export function useEntry(options: EntryOptions = {}): UseEntryReturn {
  const bench = useBench()
  const atBench = useAtBench()
  const inHand = ref('')

  const cells = options.cells ?? computed(() => (bench.sheet?.cells ?? []).filter((candidate) => candidate.on_card))
  const cell = computed(() => cells.value.find((candidate) => keyOf(candidate) === inHand.value) ?? null)
  const draft = computed(() => (cell.value ? (bench.drafts[bench.placeOf(cell.value)] ?? '') : ''))

  /** What the instruction asks to be read, in its order, as often as it asks. */
  const asked = computed(() => stillAsked(bench.sheet, bench.waitingHere))
  const { held, type, end, erase, shift, discard } = useHeld(() => bench.ticket)

  /** Place where the next reading is one more of the one before it. */
  const repeatNext = ref('')
  const stopped = ref<Stop | null>(null)
  /** Whether what is held was typed since this page was opened, behind a reading that stopped. */
  let isHolding = false
  /** Whether somebody said where what is held begins: then it goes from place to place, whatever is asked for. */
  let isAlong = false

  /** On the card it is what the main button names; in a course of one's own it is the next of the course. */
  function firstAsked(): string | undefined {
    return options.cells || !asked.value[0] ? undefined : keyOf(asked.value[0])
  }

  /** While nothing can be read under tension the card has no place in hand but the one that somebody chooses. */
  const isAtRest = computed(() => !options.cells && !!bench.sheet?.rests)
  function firstPlace(): string {
    return firstAsked() ?? (isAtRest.value ? '' : (firstOpen() ?? keyOf(cells.value[0] ?? { measure: '', position: null })))
  }

  watch(
    () => bench.sheet?.instrument.visit_id,
    () => {
      // What was said at the instrument before is not said of this one.
      isAlong = false
      repeatNext.value = ''
      stopped.value = null
      // Typed here before the page was left, and not entered: what is typed next does not run on from it.
      end()
      inHand.value = firstPlace()
    },
    { immediate: true },
  )

  watch(isAtRest, () => {
    if (draft.value === '' && !stop.value) inHand.value = firstPlace()
  })

  function isWaiting(candidate: Cell): boolean {
    return onTheirWay(candidate, bench.waitingHere) > 0
  }

  /** On the card the course of Enter leaves out what a bridge does not ask for; a course of one's own has it all. */
  function isAsked(candidate: Cell): boolean {
    return options.cells !== undefined || candidate.needed
  }

  /** A reading that holds no more is not asked for again while what was done since tells what it is. */
  function isToRead({ state, told }: Cell): boolean {
    return state !== 'current' && !(state === 'stale' && told !== null)
  }

  function firstOpen(): string | undefined {
    const open = cells.value.find((candidate) => isAsked(candidate) && isToRead(candidate) && !isWaiting(candidate))
    return open && keyOf(open)
  }

  function setDraft(text: string): void {
    if (!cell.value) return
    bench.setDraft(bench.placeOf(cell.value), text)
  }

  function focusInput(): void {
    void nextTick(() => document.querySelector<HTMLInputElement>('input[data-reading]')?.focus())
  }

  function goTo(key: string): void {
    inHand.value = key
    focusInput()
  }

  function isRead(key: string): boolean {
    return (bench.sheet?.instruction.read ?? []).some((place) => keyOf(place) === key)
  }
  watch(
    () => (bench.sheet?.instruction.read ?? []).map(keyOf).join(),
    () => {
      const to = options.cells ? undefined : nextAsked(bench.sheet, bench.waitingHere, inHand.value)
      const isTyping = document.activeElement instanceof HTMLElement && document.activeElement.dataset.reading !== undefined
      // Whoever said that one more follows here is not led away from it.
      const isRepeating = repeatNext.value === inHand.value
      if (to === undefined || to === inHand.value || isRepeating || draft.value !== '' || stop.value) return
      if (isTyping) goTo(to)
      else inHand.value = to
    },
  )

  function next(): void {
    const wanted = options.cells ? undefined : nextAsked(bench.sheet, bench.waitingHere, inHand.value)
    if (wanted !== undefined) {
      goTo(wanted)
      return
    }
    if (!options.cells && isRead(inHand.value)) {
      // The last that was asked for: it stays here until the sheet asks for something else.
      focusInput()
      return
    }
    // On the card nobody is led to a place that nobody asked for; in a full measuring every place is asked for.
    const index = cells.value.findIndex((candidate) => keyOf(candidate) === inHand.value)
    const open = (candidate: Cell) => isAsked(candidate) && isOpen(candidate)
    // The board's end stands before the nut on the card, and is read after it.
    const following = cells.value.slice(index + 1).find(open) ?? (isAfterWork() ? cells.value.find(open) : undefined)
    if (following) goTo(keyOf(following))
    else if (options.cells) goTo(firstOpen() ?? inHand.value)
    else focusInput()
  }

  /** Whether a work waits here that the sheet does not know of yet. */
  function isAfterWork(): boolean {
    return bench.actsWaiting.some((row) => row.work)
  }
  /** What is still to be read; while a work waits here, all that stands at the same measure, and at the board's end. */
  function isOpen(candidate: Cell): boolean {
    if (isWaiting(candidate)) return false
    const isMoved = isAfterWork() && [cell.value?.measure, MOVES_WITH_ANY_WORK].includes(candidate.measure)
    return options.cells !== undefined || candidate.state !== 'current' || isMoved
  }

  function takeNow(repeats: boolean, simulated = false): void {
    if (!cell.value) return
    const typed = draft.value.trim()
    if (typed !== '') {
      const isAskedAgain = bench.sheet?.instruction.repeats === true && asked.value.some((one) => keyOf(one) === inHand.value)
      const isRepeat = repeatNext.value === inHand.value || isAskedAgain
      repeatNext.value = repeats ? inHand.value : ''
      const isFar = leaps(cell.value, typed)
      const id = bench.take(cell.value, typed, isRepeat, simulated)
      // Whoever may not measure keeps what was typed, and is told so.
      if (!id) return
      if (isFar) {
        stopped.value = { place: inHand.value, id, typed }
        focusInput()
        return
      }
    } else if (cell.value.state === 'doubted' && cell.value.doubt?.may_be_kept) {
      void bench.confirm(cell.value)
    }
    if (repeats) focusInput()
    else goOn()
  }

  /** On to the next place, and there with what was held for it, until one of those stops too. */
  function goOn(): void {
    const before = inHand.value
    if (isAlong && held.value.entries.length) along()
    else next()
    if (!held.value.entries.length) isAlong = false
    // Where nothing follows, what is held stays in sight until somebody says where it belongs.
    if (held.value.entries.length && inHand.value !== before && isHolding) enterHeld()
  }
  function along(): void {
    const following = cells.value[cells.value.findIndex((candidate) => keyOf(candidate) === inHand.value) + 1]
    if (following) goTo(keyOf(following))
  }
  function enterHeld(): void {
    const text = shift()
    if (text === undefined || !cell.value) return
    isHolding = true
    setDraft(text)
    takeNow(false)
  }
  function enterHeldHere(): void {
    isAlong = true
    enterHeld()
  }
  function takeHeldHere(): void {
    const text = shift()
    if (text === undefined || !cell.value) return
    stopped.value = null
    setDraft(text)
    takeNow(false)
  }

  /** What was refused was not taken: there is nothing to keep, only to type anew. */
  const isRefused = computed(() => !!cell.value && bench.placeOf(cell.value) in bench.refusals)
  const stop = computed(() => (stopped.value?.place === inHand.value && !isRefused.value ? stopped.value : null))
  const stopWords = computed(() => {
    if (!stop.value || !cell.value) return null
    const [low = 0, high = 0] = cell.value.likely ?? []
    if (!isWaiting(cell.value) && cell.value.doubt) return cell.value.doubt.sentence
    return t('is_far_from_what_is', { typed: stop.value.typed, plain: plain(low), plain2: plain(high) })
  })
  /* The server asks about less than what stops here: whoever puts an own reading right at once goes on. */
  watch(
    () => bench.sheet,
    () => {
      const at = cells.value.find((candidate) => keyOf(candidate) === stopped.value?.place)
      if (!stopped.value || !at || isWaiting(at) || at.state === 'doubted') return
      const isHere = stop.value !== null
      stopped.value = null
      if (isHere) goOn()
    },
  )
  function keepStopped(): void {
    if (!stop.value || !cell.value) return
    end()
    void bench.confirm(cell.value, stop.value.id)
    stopped.value = null
    goOn()
  }
  /**
   * One key says what a leap is. Digits meanwhile, as a caliper goes on sending them, are held for the next places in
   * their order: they neither land here nor are they lost.
   */
  function onStopKey(event: KeyboardEvent): void {
    if (event.key.startsWith('Arrow')) {
      end()
      stopped.value = null
      return
    }
    const { key } = event
    if (key.length === 1 || key === 'Enter' || key === 'Backspace' || key === 'Escape') event.preventDefault()
    if (held.value.typing !== '') {
      if (key === 'Enter') end()
      else if (key === 'Backspace' || key === 'Escape') erase(key === 'Escape')
      else if (key.length === 1) type(key)
    } else if (STARTS_A_READING.test(key)) {
      isHolding = true
      type(key)
    } else if (key === 'k' || key === 'K') keepStopped()
    else if ((key === 'm' || key === 'M') && cell.value && !isWaiting(cell.value)) takeSuggested()
    else if (key === 'r' || key === 'R') takeHeldHere()
    else if (key === 'Backspace' || key === 'Escape') stopped.value = null
  }

  function takeSuggested(): void {
    const suggested = cell.value?.doubt?.suggested
    if (!cell.value || suggested === null || suggested === undefined) return
    stopped.value = null
    end()
    bench.take(cell.value, String(suggested), false)
    goOn()
  }

  function nextTool(): void {
    if (cell.value && cell.value.tools.length > 1) atBench.nextTool(cell.value.measure, cell.value.tools)
  }

  function onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (stop.value) onStopKey(event)
    if (event.defaultPrevented) return
    // What was refused stands at its place to be put right; a figure typed there begins anew, as a caliper sends it.
    if (STARTS_A_READING.test(event.key) && isRefused.value) {
      stopped.value = null
      event.preventDefault()
      bench.notice = t('cleared', { draft: draft.value })
      setDraft(event.key)
      return
    }
    switch (event.key) {
      case 't':
      case 'T':
        event.preventDefault()
        nextTool()
        return
      case 'Enter':
        event.preventDefault()
        takeNow(event.shiftKey)
        return
      case 'Escape':
        if (draft.value) bench.notice = t('cleared', { draft: draft.value })
        setDraft('')
        return
      case 'ArrowLeft':
      case 'ArrowRight':
      case 'ArrowUp':
      case 'ArrowDown':
        event.preventDefault()
        move(event.key)
    }
  }

  function move(direction: Direction): void {
    const sheet = bench.sheet
    if (!sheet) return
    if (options.neighbour) {
      goTo(options.neighbour(inHand.value, direction))
      return
    }
    const grid = {
      strings: sheet.instrument.string_names.length,
      leftHanded: sheet.instrument.left_handed,
      singles: cells.value.filter((candidate) => candidate.position === null).map(keyOf),
    }
    goTo(neighbour(inHand.value, direction, grid))
  }

  /** Digits typed anywhere start a reading: a caliper does not look for the focus first. */
  function onWindowKey(event: KeyboardEvent): void {
    const target = event.target instanceof Element ? event.target : document.body
    if (!atBench.bareKeys || target.closest(TAKES_DIGITS)) return
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('.v-dialog.v-overlay--active')) return
    const input = document.querySelector<HTMLInputElement>('input[data-reading]')
    if (!input) {
      if (isAtRest.value && STARTS_A_READING.test(event.key)) bench.notice = t('choose_a_place', { rests: bench.sheet?.rests ?? '' })
      return
    }
    if (STARTS_A_READING.test(event.key) || event.key === 'Backspace') {
      input.focus()
    } else if (target === document.body && (event.key === 'Enter' || event.key === 't' || event.key.startsWith('Arrow'))) {
      input.focus()
      onKey(event)
    }
  }

  useEventListener(window, 'keydown', onWindowKey)

  return { inHand, cell, draft, setDraft, onKey, goTo, takeNow, takeSuggested, nextTool, stop, stopWords, keepStopped, held, takeHeldHere, enterHeld: enterHeldHere, discardHeld: discard }
}
