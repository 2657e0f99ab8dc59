/** What is used of jstat, which ships no types. */
declare module 'jstat' {
  const jstat: { studentt: { inv: (share: number, freedom: number) => number } };
  export default jstat;
}
