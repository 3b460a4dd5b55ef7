/** Put the focus where work begins, so that keys act at once. */
import { nextTick } from 'vue'

/** Of a part of the page, once it is drawn; its first radio where none is chosen. */
export function focusChosen(part: () => ParentNode | null): void {
  void nextTick(() => {
    const within = part()
    const radio = within?.querySelector<HTMLInputElement>('input[type="radio"]:checked')
    ;(radio ?? within?.querySelector<HTMLInputElement>('input[type="radio"]'))?.focus()
  })
}

function openDialog(): ParentNode | null {
  return document.querySelector('.v-dialog.v-overlay--active')
}

/** Of the dialog that is open. */
export function focusChosenInDialog(): void {
  focusChosen(openDialog)
}

/**
 * The field of the open dialog that is marked `data-first`, once.
 * Vuetify's own `autofocus` takes the focus again whenever the field comes into view, also from whoever has moved on.
 */
export function focusFirstInDialog(): void {
  openDialog()?.querySelector<HTMLElement>('[data-first] :is(input:not([type="hidden"]), textarea)')?.focus()
}

/** The first field of the open dialog that was refused, once it is marked; where none is, the focus stays. */
export function focusFaultInDialog(): void {
  void nextTick(() => openDialog()?.querySelector<HTMLElement>('.v-input--error :is(input:not([type="hidden"]), textarea)')?.focus())
}
