/**
 * How large a file or a stored text is; number and unit stay on one line.
 * @example sizeWords(134_200); // "135 kB"
 */
export function sizeWords(bytes: number): string {
  return bytes < 1e6 ? `${Math.ceil(bytes / 1000)}\u00a0kB` : `${(bytes / 1e6).toFixed(1)}\u00a0MB`;
}
