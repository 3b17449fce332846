// The package's own types are not reachable through its "exports".
declare module 'tinykeys' {
  export function tinykeys(
    target: Window | HTMLElement,
    bindings: Record<string, (event: KeyboardEvent) => void>,
  ): () => void;
}

// The package's themes by themselves, without its index.
declare module 'react-native-paper/lib/module/styles/themes' {
  export { MD3DarkTheme, MD3LightTheme } from 'react-native-paper';
}
