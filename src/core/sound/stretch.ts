/** The longest stretch that is rendered at once, frames. */
export const MAX_STRETCH = 128;
