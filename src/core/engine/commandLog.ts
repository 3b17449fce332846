import type { Command } from '../protocol/commands';

/**
 * The commands that an engine applied, each with its frame: played into a new engine they give the same samples. Kept only
 * when somebody has asked for it. Patterns are named by their revision, and samples by their
 * audio, and not carried again: whoever sent them has them.
 */
export class CommandLog {
  private kept: Command[] | null = null;

  /** Begins to keep what is applied, or ceases to. */
  keep(on: boolean): void {
    this.kept = on ? (this.kept ?? []) : null;
  }

  get length(): number {
    return this.kept?.length ?? 0;
  }

  get isKept(): boolean {
    return this.kept !== null;
  }

  note(command: Command): void {
    this.kept?.push(withoutArrays(command));
  }

  /** Takes out what was kept since the last time. */
  drain(): Command[] {
    return this.kept?.splice(0) ?? [];
  }
}

const NONE = new Float64Array(0);

function withoutArrays(command: Command): Command {
  switch (command.type) {
    case 'pattern':
      return { ...command, hits: NONE, feels: command.feels && NONE };
    case 'patternEdit':
      return { ...command, removed: NONE, hits: NONE };
    case 'moves':
      return { ...command, points: NONE };
    case 'sample':
      return { ...command, sample: { ...command.sample, levels: [] } };
    default:
      return command;
  }
}
