/** How many cases a property test tries: `FUZZ` multiplies the usual number, for long runs with other seeds. */
export const runs = (usual: number): { numRuns: number } => ({
  numRuns: Math.ceil(usual * Number(process.env.FUZZ ?? 1)),
});
