/** Whether one list of figures is smaller than another, the first that differs deciding. */
export function isLess(a: readonly number[], b: readonly number[]): boolean {
  const at = a.findIndex((value, i) => value !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
}
