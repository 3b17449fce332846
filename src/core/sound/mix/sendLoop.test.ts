import { assertSameBits } from './loops.testing';
import { send, sendMoving, SENT_NUMBERS } from './sendLoop';

test('pan and sends that stand still are to the bit those that move by nothing', () =>
  assertSameBits(send, (gains, ...where) => sendMoving(gains, new Float64Array(SENT_NUMBERS), ...where), SENT_NUMBERS));
