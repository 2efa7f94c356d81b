declare module 'text-encoding/lib/encoding-indexes.js' {
  /** Code points by pointer, as the Encoding standard has them. */
  const indexes: { 'encoding-indexes': Record<string, (number | null)[]> };
  export default indexes;
}
