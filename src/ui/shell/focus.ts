/** Whether the focused element takes typed text. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.matches('input, textarea, select') || target.isContentEditable);
}

const CONTROLS = 'a, button, [role="button"], [role="menuitem"], [role="slider"], [role="radio"], [role="switch"]';

/** Whether the key would press the control that has the focus. */
export function isOnControl(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches(CONTROLS);
}

/** Whether the key belongs to an open sheet, which scrolls with it. */
export function isInSheet(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role="dialog"]') !== null;
}

/** What was pressed last, and whether by a key or by a pointer. */
interface Press {
  control: HTMLElement | null;
  byKey: boolean;
}

let last: Press = { control: null, byKey: false };

/** Notes every press, for `lastPress`. Returns what ends it. */
export function watchPresses(): () => void {
  const note = (event: Event) => {
    const byKey = event.type === 'keydown';
    const target = byKey ? document.activeElement : event.target;
    last = { control: target instanceof Element ? target.closest<HTMLElement>(CONTROLS) : null, byKey };
  };
  window.addEventListener('keydown', note, { capture: true });
  window.addEventListener('pointerdown', note, { capture: true });
  return () => {
    window.removeEventListener('keydown', note, { capture: true });
    window.removeEventListener('pointerdown', note, { capture: true });
  };
}

/** The press that opens what is being opened. An item of a menu goes with it: the key that opened the menu has the focus again. */
export function lastPress(): Press {
  if (last.control?.isConnected && !last.control.matches('[role="menuitem"]')) return last;
  const { activeElement } = document;
  return { ...last, control: activeElement instanceof HTMLElement ? activeElement : null };
}

/**
 * Gives the focus back to what opened something that is closed, if it still has it, or nobody. What a key opened gets it
 * itself; what a pointer opened lets what is round it have it, so that a screen reader goes on from there and Space still plays.
 */
export function giveFocusBack({ control, byKey }: Press, closed?: Element | null): void {
  const { activeElement } = document;
  const isFree = activeElement === null || activeElement === document.body || closed?.contains(activeElement);
  if (!control?.isConnected || !isFree) return;
  if (byKey) return control.focus();
  const round = control.parentElement!;
  if (!round.hasAttribute('tabindex')) round.tabIndex = -1;
  round.focus({ preventScroll: true });
}
