/** Put the focus on a chosen radio, so that arrows and Enter work at once. */
import { nextTick } from 'vue'

/** Of a part of the page, once it is drawn; its first radio where none is chosen. */
export function focusChosen(part: () => ParentNode | null): void {
  void nextTick(() => {
    const within = part()
    const radio = within?.querySelector<HTMLInputElement>('input[type="radio"]:checked')
    ;(radio ?? within?.querySelector<HTMLInputElement>('input[type="radio"]'))?.focus()
  })
}

/** Of the dialog that is open. */
export function focusChosenInDialog(): void {
  focusChosen(() => document.querySelector('.v-dialog.v-overlay--active'))
}
