/**
 * Controllers that say how strokes sounded (MIDI 1.0, from memory): channel volume, pan, expression, release time, brightness.
 */
export const CONTROLLERS = { volume: 7, pan: 10, level: 11, decay: 72, filter: 74 } as const;
