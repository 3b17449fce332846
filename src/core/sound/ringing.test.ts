import fc from 'fast-check';
import { MAX_TRACKS } from '../document/limits';
import type { DrumVoice } from './drumVoice';
import { NONE, Ringing } from './ringing';

const voice = fc.record({ active: fc.boolean(), track: fc.nat(MAX_TRACKS - 1) });

test('each track has the voices of it that ring, all of them and no others, in the order of the pool, stretch after stretch', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(voice, { minLength: 24, maxLength: 24 }), { minLength: 1, maxLength: 4 }),
      (stretches) => {
        const voices = stretches[0]!.map((one) => ({ ...one }));
        const ringing = new Ringing(voices as unknown as DrumVoice[]);
        for (const stretch of stretches) {
          stretch.forEach((one, place) => Object.assign(voices[place]!, one));
          ringing.look();
          for (let track = 0; track < MAX_TRACKS; track++) {
            const found: number[] = [];
            for (let place = ringing.first(track); place !== NONE; place = ringing.next(place)) found.push(place);
            expect(found).toEqual(stretch.flatMap((one, place) => (one.active && one.track === track ? [place] : [])));
            expect(ringing.on(track)).toBe(found.length);
          }
        }
      },
    ),
  );
});
