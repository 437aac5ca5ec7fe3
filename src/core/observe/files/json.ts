/** Reading JSON that is not ours: values of the kind that is expected, or nothing. */
export type Plain = Readonly<Record<string, unknown>>;

export const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);
export const plain = (v: unknown): Plain => (isPlain(v) ? v : {});
export const list = (v: unknown): readonly unknown[] => (Array.isArray(v) ? v : []);
export const plains = (v: unknown): readonly Plain[] => list(v).filter(isPlain);
export const text = (v: unknown): string | undefined => (typeof v === 'string' && v !== '' ? v : undefined);
export const number = (v: unknown): number | undefined => {
  if (typeof v === 'number' && Number.isFinite(v)) return v;
  return typeof v === 'string' && v.trim() !== '' && Number.isFinite(Number(v)) ? Number(v) : undefined;
};
export const truth = (v: unknown): boolean | undefined => (typeof v === 'boolean' ? v : undefined);
