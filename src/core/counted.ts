/**
 * How many there are, in words.
 * @example counted(1906, 'hit') // '1,906 hits'; counted(3, 'stretch', 'stretches') // '3 stretches'
 */
export function counted(count: number, one: string, more = `${one}s`): string {
  return `${count.toLocaleString('en')} ${count === 1 ? one : more}`;
}
