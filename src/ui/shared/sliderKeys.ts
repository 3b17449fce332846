/** Steps by which keys move a slider (WAI-ARIA Authoring Practices, the slider pattern); Home and End go to its ends. */
export const SLIDER_STEPS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 10,
  PageDown: -10,
};
