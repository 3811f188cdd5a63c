declare module '*.woff' {
  const bytes: Uint8Array
  export default bytes
}
