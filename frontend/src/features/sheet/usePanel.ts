/** The sheet's panel: its size decides the scale, which drawing and card share. */
import { useElementSize, useMediaQuery, useWindowSize } from '@vueuse/core'
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import type { BenchSheet } from '@/api'
import { COLUMNS } from '@/features/frame'
import { sheetGeometry, type SheetGeometry } from '@/features/drawing'

export interface UsePanelReturn {
  panel: Ref<HTMLElement | null>
  width: ComputedRef<number>
  drawingHeight: ComputedRef<number>
  isNarrow: ComputedRef<boolean>
  margins: ComputedRef<{ left: number; right: number }>
  geometry: ComputedRef<SheetGeometry>
}

/** What stands over the drawing in its column, and under it: the cuts, the card's rows, the single readings. [px] */
const REST = 370
/** Where the columns are not held to the window, the drawing still leaves room for what else is on the screen. [px] */
const ELSEWHERE = 578

export function usePanel(sheet: ComputedRef<BenchSheet | null>): UsePanelReturn {
  const panel = ref<HTMLElement | null>(null)
  const size = useElementSize(panel, { width: 840, height: 0 })
  const width = computed(() => size.width.value || 840)
  const column = computed(() => panel.value?.closest('main') ?? null)
  const { height: room } = useElementSize(column)
  /** Two lines where the pages of the part do not fit beside its name. */
  const { height: head } = useElementSize(computed(() => column.value?.querySelector<HTMLElement>(':scope > .head')), { width: 0, height: 46 }, { box: 'border-box' })
  const { height: windowHeight } = useWindowSize()
  const isHeld = useMediaQuery(COLUMNS)

  const drawingHeight = computed(() => {
    const free = isHeld.value && room.value ? room.value - head.value - REST : windowHeight.value - ELSEWHERE
    return Math.max(200, Math.min(460, free))
  })
  const isNarrow = computed(() => width.value < 640)
  const margins = computed(() => (isNarrow.value ? { left: 8, right: 8 } : { left: 136, right: 16 }))
  const geometry = computed(() =>
    sheetGeometry({
      width: width.value,
      ...margins.value,
      strings: sheet.value?.instrument.string_names.length ?? 4,
      leftHanded: sheet.value?.instrument.left_handed ?? false,
      drawing: sheet.value?.drawing ?? null,
    }),
  )

  return { panel, width, drawingHeight, isNarrow, margins, geometry }
}
