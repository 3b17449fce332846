// The package's own types are not reachable through its "exports".
declare module 'tinykeys' {
  export function tinykeys(
    target: Window | HTMLElement,
    bindings: Record<string, (event: KeyboardEvent) => void>,
  ): () => void;
}
