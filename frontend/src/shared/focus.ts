/** Put the focus on the chosen radio of an open dialog, so that arrows and Enter work at once. */
import { nextTick } from 'vue'

export function focusChosen(): void {
  void nextTick(() => {
    const dialog = document.querySelector('.v-dialog.v-overlay--active')
    const radio = dialog?.querySelector<HTMLInputElement>('input[type="radio"]:checked')
    ;(radio ?? dialog?.querySelector<HTMLInputElement>('input[type="radio"]'))?.focus()
  })
}
