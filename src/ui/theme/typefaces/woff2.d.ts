/** What the bundler knows a file by. */
declare module '*.woff2' {
  const asset: number;
  export default asset;
}
