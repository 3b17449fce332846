/** Whether the focused element takes typed text. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.matches('input, textarea, select') || target.isContentEditable);
}

/** Whether the key would press the control that has the focus. */
export function isOnControl(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.matches('a, button, [role="button"], [role="menuitem"], [role="slider"], [role="radio"], [role="switch"]')
  );
}
