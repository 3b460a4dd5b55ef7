/** The sheet's panel: its size decides the scale, which drawing and card share. */
import { computed, onBeforeUnmount, onMounted, ref, watch, type ComputedRef, type Ref } from 'vue'
import type { BenchSheet } from '@/api'
import { sheetGeometry, type SheetGeometry } from '@/features/drawing'

export interface UsePanelReturn {
  panel: Ref<HTMLElement | null>
  width: Ref<number>
  drawingHeight: ComputedRef<number>
  isNarrow: ComputedRef<boolean>
  margins: ComputedRef<{ left: number; right: number }>
  geometry: ComputedRef<SheetGeometry>
}

export function usePanel(sheet: ComputedRef<BenchSheet | null>): UsePanelReturn {
  const panel = ref<HTMLElement | null>(null)
  const width = ref(840)
  const windowHeight = ref(window.innerHeight)
  const observer = new ResizeObserver((entries) => {
    width.value = entries[0]?.contentRect.width ?? width.value
  })
  const onResize = () => (windowHeight.value = window.innerHeight)
  watch(panel, (element, before) => {
    if (before) observer.unobserve(before)
    if (element) observer.observe(element)
  })
  onMounted(() => window.addEventListener('resize', onResize))
  onBeforeUnmount(() => {
    observer.disconnect()
    window.removeEventListener('resize', onResize)
  })

  const drawingHeight = computed(() => Math.max(250, Math.min(460, windowHeight.value - 500)))
  const isNarrow = computed(() => width.value < 640)
  const margins = computed(() => (isNarrow.value ? { left: 8, right: 8 } : { left: 136, right: 176 }))
  const geometry = computed(() =>
    sheetGeometry({
      width: width.value,
      ...margins.value,
      strings: sheet.value?.instrument.string_names.length ?? 4,
      leftHanded: sheet.value?.instrument.left_handed ?? false,
      drawing: sheet.value?.drawing ?? null,
      height: drawingHeight.value,
    }),
  )

  return { panel, width, drawingHeight, isNarrow, margins, geometry }
}
