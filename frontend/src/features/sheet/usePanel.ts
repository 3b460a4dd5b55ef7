/** The sheet's panel: its size decides the scale, which drawing and card share. */
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import type { BenchSheet } from '@/api'
import { sheetGeometry, type SheetGeometry } from '@/features/drawing'

export interface UsePanelReturn {
  panel: Ref<HTMLElement | null>
  width: ComputedRef<number>
  drawingHeight: ComputedRef<number>
  isNarrow: ComputedRef<boolean>
  margins: ComputedRef<{ left: number; right: number }>
  geometry: ComputedRef<SheetGeometry>
}

/** What else stands over and under the drawing where all of it is seen at once. [px] */
const REST = 578

export function usePanel(sheet: ComputedRef<BenchSheet | null>): UsePanelReturn {
  const panel = ref<HTMLElement | null>(null)
  const size = useElementSize(panel, { width: 840, height: 0 })
  const width = computed(() => size.width.value || 840)
  const room = () => window.innerHeight - (document.querySelector('.bar')?.clientHeight ?? 0)
  const windowHeight = ref(room())
  useEventListener(window, 'resize', () => (windowHeight.value = room()))

  const drawingHeight = computed(() => Math.max(210, Math.min(460, windowHeight.value - REST)))
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
