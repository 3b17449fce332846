import fc from 'fast-check';
import { random } from '../../../random';
import { MAX_STRETCH } from '../../stretch';
import { goRound, goRoundMoving, heard, into, LOSS, LOSS_NUMBERS, passing } from './roomLoops';

test('two lines at once are to the bit what they are one by one, down to what is as good as nothing', () => {
  const runs = fc.record({
    frames: fc.integer({ min: 1, max: MAX_STRETCH }),
    seed: fc.integer({ min: 1, max: 1e6 }),
    loud: fc.constantFrom(1, 1e-14, 3e-15),
  });
  fc.assert(
    fc.property(runs, ({ frames, seed, loud }) => {
      const sounds = [goRound, goRoundMoving].map((loop) => {
        const next = random(seed);
        const losses = Float64Array.from({ length: LOSS_NUMBERS }, () => next());
        losses.fill(0, LOSS.steps, LOSS.held);
        const stretches = [into.left, into.right, ...passing];
        for (const sound of stretches) for (let i = 0; i < MAX_STRETCH; i++) sound[i] = loud * (2 * next() - 1);
        loop(losses, frames);
        return [losses, ...[heard.left, heard.right, ...passing].map((sound) => sound.slice(0, frames))];
      });
      expect(sounds[0]).toEqual(sounds[1]);
    }),
  );
});

test('what goes round keeps its energy: the matrix is orthogonal (Hadamard)', () => {
  const next = random(7);
  const losses = new Float64Array(LOSS_NUMBERS).fill(1, 0, LOSS.steps);
  into.left.fill(0);
  into.right.fill(0);
  for (const sound of passing) for (let i = 0; i < MAX_STRETCH; i++) sound[i] = 2 * next() - 1;
  const energyAt = (i: number) => passing.reduce((sum, sound) => sum + sound[i]! ** 2, 0);
  const before = Array.from({ length: MAX_STRETCH }, (_, i) => energyAt(i));
  goRound(losses, MAX_STRETCH);
  before.forEach((energy, i) => expect(energyAt(i)).toBeCloseTo(energy, 12));
});
