/** Which tool is being checked: the dialog stands over whatever page asked for it. */
import { ref, type Ref } from 'vue'

const tool = ref('')
const isOpen = ref(false)

export interface UseToolCheckReturn {
  tool: Ref<string>
  isOpen: Ref<boolean>
  check: (tool: string) => void
}

export function useToolCheck(): UseToolCheckReturn {
  function check(which: string): void {
    tool.value = which
    isOpen.value = true
  }
  return { tool, isOpen, check }
}
