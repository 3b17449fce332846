import { renderHook } from '@testing-library/react-native';
import { useDrag } from './useDrag';

/** An element at (10, 20), 100 px wide and 50 high, that keeps the pointers it has captured. */
function element() {
  const captured = new Set<number>();
  return {
    captured,
    setPointerCapture: (id: number) => captured.add(id),
    hasPointerCapture: (id: number) => captured.has(id),
    getBoundingClientRect: () => ({ left: 10, top: 20, width: 100, height: 50 }),
  };
}
const at = (currentTarget: unknown, pointerId: number, clientX: number, clientY = 20) =>
  ({ currentTarget, nativeEvent: { pointerId, clientX, clientY, timeStamp: 7 }, preventDefault: () => undefined }) as const; // prettier-ignore

async function rig() {
  const told: unknown[] = [];
  const { result } = await renderHook(() =>
    useDrag<string, string>({
      begin: ({ x, y }, what) => (told.push(['begin', what, x, y]), what),
      move: ({ dx, dy }, what) => told.push(['move', what, dx, dy]),
      end: ({ dx }, what, cancelled) => told.push(['end', what, dx, cancelled]),
    }),
  );
  return { told, drag: result.current };
}

test('one pointer drags, others are ignored until it is up, and an element around it leaves it alone', async () => {
  const { told, drag } = await rig();
  const [grip, box] = [element(), element()];
  drag('grip').onPointerDown(at(grip, 1, 30, 25));
  drag('box').onPointerDown(at(box, 1, 30, 25)); // the same press, told to what lies around
  drag('grip').onPointerDown(at(grip, 2, 90));
  drag('grip').onPointerMove(at(grip, 2, 95));
  drag('grip').onPointerMove(at(grip, 1, 42, 22));
  drag('grip').onPointerUp(at(grip, 2, 95));
  drag('grip').onPointerUp(at(grip, 1, 50));
  drag('grip').onPointerMove(at(grip, 1, 60));
  expect(told).toEqual([['begin', 'grip', 20, 5], ['move', 'grip', 12, -3], ['end', 'grip', 20, false]]); // prettier-ignore
});

test('a drag taken away by the browser is cancelled; one whose element went away gives way to the next', async () => {
  const { told, drag } = await rig();
  const grip = element();
  drag('grip').onPointerDown(at(grip, 1, 30));
  drag('grip').onPointerCancel(at(grip, 1, 31));
  drag('grip').onPointerDown(at(grip, 2, 30));
  grip.captured.clear(); // it is gone: neither up nor cancel will come
  drag('box').onPointerDown(at(element(), 3, 40));
  expect(told.map((what) => (what as string[]).slice(0, 2))).toEqual([['begin', 'grip'], ['end', 'grip'], ['begin', 'grip'], ['begin', 'box']]); // prettier-ignore
});
