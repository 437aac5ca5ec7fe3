/** Values that show each sentence of a table in every form. */
export type Samples<Table extends Readonly<Record<string, (...values: never[]) => string>>> = {
  readonly [Code in keyof Table]: readonly Parameters<Table[Code]>[];
};
