/** Gives the focus to what a component is at root, such as a button. */
export function focusOn(component: { $el: unknown } | null): void {
  if (component?.$el instanceof HTMLElement) component.$el.focus()
}
