import { decodeEvents, EventQueue } from './events';

test('a queue that nobody reads loses its oldest events and counts them', () => {
  const events = new EventQueue();
  for (let i = 0; i < 3000; i++) events.add('checked', i).click = i;
  expect(events.lost).toBe(3000 - 2048);
  expect(decodeEvents(events.drain())[0]!.frame).toBe(3000 - 2048);
});
