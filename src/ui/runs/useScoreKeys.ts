import type { KeyboardEvent } from 'react';
import { ticksPerBar } from '@/core/time/ticks';
import type { OpenedRun } from '@/instrument/openedRun';
import type { ScoreView } from './scoreView';
import { chosenBlocks, chosenHits, snapTicks, type RunDesk } from './useRunDesk';

/** The timeline by keys: the cursor, sections, zoom; while it is fixed, what is chosen is moved, copied and taken away. */
export function useScoreKeys({ opened, view, desk }: { opened: OpenedRun; view: ScoreView; desk: RunDesk }) {
  return (event: KeyboardEvent) => {
    const act = actionOf(event);
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };

  function actionOf({ key, shiftKey, ctrlKey, metaKey, altKey }: KeyboardEvent): (() => void) | null {
    const { score } = opened;
    const bar = ticksPerBar(score.meter);
    const step = snapTicks(desk.snap, score) || bar / 16;
    const go = (tick: number) => () => {
      const to = Math.min(score.length, Math.max(0, tick));
      desk.jump(to);
      view.reveal(to);
    };
    const direction = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0;
    if (ctrlKey || metaKey) {
      if (!desk.fixing || altKey) return null;
      if (key === 'z') return () => (shiftKey ? opened.redo() : opened.undo());
      if (key === 'd') return () => copy();
      return null;
    }
    if (direction !== 0 && desk.fixing && shiftKey && desk.chosen.size > 0) return () => nudge(direction * step);
    if (direction !== 0) return go(desk.cursor + direction * step);
    switch (key) {
      case 'Home':
        return go(0);
      case 'End':
        return go(score.length - bar);
      case 'PageDown':
        return go(score.marks.find(({ tick }) => tick > desk.cursor)?.tick ?? desk.cursor + 8 * bar);
      case 'PageUp':
        return go(score.marks.filter(({ tick }) => tick < desk.cursor).at(-1)?.tick ?? desk.cursor - 8 * bar);
      case '+':
        return () => view.zoom(0.7, desk.cursor);
      case '-':
        return () => view.zoom(1 / 0.7, desk.cursor);
      case 'ArrowDown':
      case 'ArrowUp': {
        const row = desk.row + (key === 'ArrowDown' ? 1 : -1);
        return row < 0 || row >= score.tracks.length ? null : () => desk.set({ row });
      }
      case 'Enter':
        return desk.fixing ? chooseAtCursor : null;
      case 'Escape':
        return desk.chosen.size > 0 ? () => desk.set({ chosen: new Set() }) : null;
      case 'Delete':
      case 'Backspace':
        return desk.fixing && desk.chosen.size > 0 ? remove : null;
    }
    return null;
  }

  function chooseAtCursor(): void {
    const track = opened.score.tracks[desk.row]!;
    const block = track.blocks.find(({ from, length }) => desk.cursor >= from && desk.cursor < from + length);
    if (!block) return;
    const chosen = new Set(desk.chosen);
    if (!chosen.delete(block.id)) chosen.add(block.id);
    desk.set({ chosen });
  }

  function nudge(by: number): void {
    const blocks = chosenBlocks(opened.score, desk.chosen).map(({ block }) => block.id);
    const hits = chosenHits(opened.score, desk.chosen);
    if (blocks.length > 0) opened.fix({ type: 'moveBlocks', blocks, by, rows: 0 });
    if (hits.length > 0) opened.fix({ type: 'moveHits', hits, by });
  }

  function copy(): void {
    copyChosen(opened, desk);
  }

  function remove(): void {
    removeChosen(opened, desk);
  }
}

/** Copies of the chosen blocks come after them. */
export function copyChosen(opened: OpenedRun, desk: RunDesk): void {
  const blocks = chosenBlocks(opened.score, desk.chosen).map(({ block }) => block);
  if (blocks.length === 0) return;
  const from = Math.min(...blocks.map((block) => block.from));
  const to = Math.max(...blocks.map((block) => block.from + block.length));
  opened.fix({ type: 'copyBlocks', blocks: blocks.map(({ id }) => id), by: to - from });
}

/** Takes the chosen blocks and hits away. */
export function removeChosen(opened: OpenedRun, desk: RunDesk): void {
  const blocks = chosenBlocks(opened.score, desk.chosen).map(({ block }) => block.id);
  const hits = chosenHits(opened.score, desk.chosen);
  if (blocks.length > 0) opened.fix({ type: 'removeBlocks', blocks });
  if (hits.length > 0) opened.fix({ type: 'removeHits', hits });
  desk.set({ chosen: new Set() });
}
