/** Who is at the bench here, and what is in the hand: kept in this browser. */
import { defineStore } from 'pinia'
import { useStored } from './stored'

export const useAtBench = defineStore('at-bench', () => {
  const person = useStored('person', 'bench')
  const tool = useStored('tool', 'caliper')
  const theme = useStored<'day' | 'lamp'>('theme', 'day')
  return { person, tool, theme }
})
