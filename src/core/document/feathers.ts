/** Colours of tracks, patterns and sections: eight muted feather tones, each with its name. */
export const FEATHERS = [
  { name: 'Slate', colour: '#7E9DB5' },
  { name: 'Russet', colour: '#DE7B4F' },
  { name: 'Moss', colour: '#93B266' },
  { name: 'Straw', colour: '#E4BC62' },
  { name: 'Heather', colour: '#A98BB8' },
  { name: 'Teal', colour: '#5FA8A0' },
  { name: 'Rose', colour: '#CB8590' },
  { name: 'Sand', colour: '#B9A78A' },
] as const;
