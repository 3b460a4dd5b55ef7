<script setup lang="ts">
/** Listens in at other benches while somebody is signed in: the open sheet and the rail follow what is written there. */
import { onScopeDispose } from 'vue'
import { useBench } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { useChanges } from '@/shared/changes'

/** A burst of readings is looked at once. */
const SHEET_AFTER_MS = 150
const RAIL_AFTER_MS = 700

const bench = useBench()
const house = useHouse()
let sheetTimer: ReturnType<typeof setTimeout> | undefined
let railTimer: ReturnType<typeof setTimeout> | undefined

useChanges((ticket) => {
  if (ticket === null || ticket === bench.ticket) {
    clearTimeout(sheetTimer)
    sheetTimer = setTimeout(() => {
      if (!bench.waiting.length) void bench.refresh()
    }, SHEET_AFTER_MS)
  }
  railTimer ??= setTimeout(() => {
    railTimer = undefined
    void house.loadTags()
  }, RAIL_AFTER_MS)
})
onScopeDispose(() => {
  clearTimeout(sheetTimer)
  clearTimeout(railTimer)
})
</script>

<template><span hidden></span></template>
