import fc from 'fast-check';
import { ClockMap } from './clockMap';
import { formatPosition } from './position';
import { addTap, clampTempo, formatTempo, parseTempo, TAP_PAUSE_MS, tappedTempo } from './tempo';
import { framesPerTick, mod, ticksPerBar, ticksPerBeat, ticksToMs } from './ticks';
import { atTempo, frameAt, tickAt, Timeline, type Anchor } from './timeline';

const SR = 48000;
const four = { beats: 4, unit: 4 };

test('durations of note values are those of the usual table (a quarter lasts 60000 / BPM ms)', () => {
  // Computed from the definition; the same numbers stand in delay-time tables of mixing handbooks.
  expect([480, 240, 720, 320].map((ticks) => +ticksToMs(ticks, 120).toFixed(4))).toEqual([250, 125, 375, 166.6667]);
  expect([960, 480, 240, 720, 320].map((ticks) => ticksToMs(ticks, 125))).toEqual([480, 240, 120, 360, 160]);
  expect([960, 480, 240, 720, 320].map((ticks) => +ticksToMs(ticks, 112).toFixed(3))).toEqual([
    535.714, 267.857, 133.929, 401.786, 178.571,
  ]);
});

test('bars and beats of meters', () => {
  expect(ticksPerBar(four)).toBe(3840);
  expect(ticksPerBeat({ beats: 6, unit: 8 })).toBe(480);
  expect(ticksPerBar({ beats: 7, unit: 8 })).toBe(3360);
});

test('the position counts bars and beats from 1, and a count-in in the bars before', () => {
  expect(formatPosition(0, four)).toBe('1.1');
  expect(formatPosition(2 * 3840 + 960, four)).toBe('3.2');
  expect(formatPosition(3839.999, four)).toBe('1.4');
  expect(formatPosition(-1, four)).toBe('0.4');
  expect(formatPosition(-7680, four)).toBe('-1.1');
});

test('mod has the sign of the divisor', () => {
  expect(mod(-1, 4)).toBe(3);
  expect(mod(9, 4)).toBe(1);
});

describe('typed tempo', () => {
  test.each([
    ['112', 112],
    [' 92.5 ', 92.5],
    ['133,33', 133.33],
    ['20', 20],
    ['300', 300],
    ['.5e2', null],
    ['19.99', null],
    ['301', null],
    ['', null],
    ['fast', null],
    ['-120', null],
  ])('%s', (text, bpm) => {
    const read = parseTempo(text);
    if (bpm === null) expect(read).toEqual({ error: expect.stringContaining(text.trim() || 'Tempo') });
    else expect(read).toEqual({ bpm });
  });

  test('is shown without needless decimals', () => {
    expect([112, 92.5, 133.333].map(formatTempo)).toEqual(['112', '92.5', '133.33']);
  });

  test('is kept to what can be played', () => {
    expect([10, 1000, 100.004].map(clampTempo)).toEqual([20, 300, 100]);
  });
});

describe('tap tempo', () => {
  const tapAll = (times: number[]) => times.reduce<number[]>((taps, t) => addTap(taps, t), []);

  test('one tap tells nothing', () => expect(tappedTempo(tapAll([5]))).toBeNull());

  test('is the median interval, rounded to a whole number', () => {
    expect(tappedTempo(tapAll([0, 500, 1000, 1500]))).toBe(120);
    // 535.7 ms is a quarter at 112; one fumbled tap changes nothing.
    expect(tappedTempo(tapAll([0, 536, 1071, 1700, 2143, 2679]))).toBe(112);
  });

  test('forgets after a pause', () => {
    const before = tapAll([0, 500, 1000]);
    expect(addTap(before, 1000 + TAP_PAUSE_MS + 1)).toHaveLength(1);
    expect(tappedTempo(tapAll([0, 500, 1000, 10000, 10400, 10800]))).toBe(150);
  });

  test('a gap of about two beats starts anew well before the slowest tempo would', () => {
    expect(tappedTempo(tapAll([0, 400, 800, 1200, 2400, 3000, 3600]))).toBe(100);
  });

  test('stays within what can be played, whatever is tapped', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 1, max: 5000, noNaN: true }), { minLength: 2, maxLength: 20 }), (gaps) => {
        let now = 0;
        const bpm = tappedTempo(tapAll(gaps.map((gap) => (now += gap))));
        return bpm === null || (bpm >= 20 && bpm <= 300 && Number.isInteger(bpm));
      }),
    );
  });
});

describe('timeline', () => {
  const anchor: Anchor = {
    frame: 1000,
    tick: 0,
    framesPerTick: framesPerTick(120, SR),
    playing: true,
    recording: false,
  };

  test('a quarter at 120 BPM is 24000 frames at 48 kHz', () => {
    expect(frameAt(anchor, 960)).toBe(1000 + 24000);
    expect(tickAt(anchor, 25000)).toBe(960);
  });

  test('a tempo change never moves the music', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 1e8 }),
        fc.double({ min: 20, max: 300, noNaN: true }),
        (frame, tempo) => {
          const changed = atTempo(anchor, frame, tempo, SR);
          return Math.abs(tickAt(changed, frame) - tickAt(anchor, frame)) < 1e-6;
        },
      ),
    );
  });

  test('after ten hours a tick is still at its frame to the sample', () => {
    const tick = 36000 * 2 * 960;
    expect(frameAt(anchor, tick)).toBe(1000 + 36000 * SR);
  });

  test('a hit is mapped with the piece in force when it was heard', () => {
    const timeline = new Timeline(anchor);
    timeline.push(atTempo(anchor, 25000, 60, SR));
    expect(timeline.tickAt(13000)).toBe(480);
    expect(timeline.tickAt(25000 + 48000)).toBe(960 * 2);
    timeline.push({ ...timeline.now, frame: 80000, tick: timeline.tickAt(80000), playing: false });
    expect(timeline.tickAt(90000)).toBe(timeline.tickAt(80000));
  });
});

describe('clock mapping', () => {
  test('maps a time stamp to the frame heard at that moment', () => {
    const clock = new ClockMap(SR);
    clock.addPair(2, 10000);
    expect(clock.frameAt(10000)).toBe(2 * SR);
    expect(clock.frameAt(9990)).toBeCloseTo(2 * SR - 480, 6);
  });

  test('a noisy pair is outvoted; a clock that moved is believed at once', () => {
    const clock = new ClockMap(SR);
    for (let i = 0; i < 9; i++) clock.addPair(1 + i * 0.01, 1000 + i * 10);
    clock.addPair(1.1 + 0.0008, 1100);
    expect(clock.frameAt(1100)).toBeCloseTo(1.1 * SR, 3);
    clock.addPair(1.2 - 0.05, 1200); // an underrun: the sound is 50 ms late from now on
    expect(clock.frameAt(1200)).toBeCloseTo(1.15 * SR, 3);
  });

  test('readings from before the clock runs are ignored', () => {
    const clock = new ClockMap(SR);
    clock.addPair(0, 500);
    expect(clock.ready).toBe(false);
  });
});
