import { readFileSync } from 'node:fs';

/** One line of the table: what was measured, the bar, and whether it was met (reported lines have none). */
interface Row {
  what: string;
  measured: string;
  bar: string;
  met: boolean | null;
}

const rows: Row[] = [];

export const row = (what: string, measured: string, bar = 'reported', met: boolean | null = null) => {
  rows.push({ what, measured, bar, met });
  console.error(`${what}: ${measured}`); // the table comes at the end
};

export const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;
export const five = (measure: () => number) => median([1, 2, 3, 4, 5].map(measure));

/** Share of the machine's time that its host took away since the last call, in %. */
let lastCpu = [0, 0];
export function steal(): string {
  const fields = readFileSync('/proc/stat', 'utf8').split('\n')[0]!.trim().split(/\s+/).slice(1).map(Number);
  const now = [fields[7] ?? 0, fields.reduce((a, b) => a + b, 0)];
  const share = (100 * (now[0]! - lastCpu[0]!)) / Math.max(1, now[1]! - lastCpu[1]!);
  lastCpu = now;
  return `${share.toFixed(0)} % stolen`;
}

/** The table as Markdown. */
export function printTable(): void {
  console.log('| what | measured | bar | met |\n| --- | --- | --- | --- |');
  for (const { what, measured, bar, met } of rows)
    console.log(`| ${what} | ${measured} | ${bar} | ${met === null ? '' : met ? 'yes' : 'NO'} |`);
}
