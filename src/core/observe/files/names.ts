/** Which device a file is of, by where it lies and what it is called. */

/** Names that say what a file holds, and not of which device. */
const GENERIC =
  /^(ip[-_]?)?(links?|bridge([-_]?(links?|vlans?|fdb))?|ports?|vlans?|fdb|lldp(ctl|cli)?|neighbou?rs?|(snmp)?walk|snmp|bond\w*|bonding|capture|trunk\w*|team\w*)$/i;

export interface PlacedFile {
  /** Path as the user sees it, with `/` between folders. */
  readonly path: string;
  /** Path inside the folder that was given; the file's own name where a file was. */
  readonly inside: string;
}

const parts = (path: string): string[] => path.split(/[\\/]/).filter(Boolean);

/** `quay-1.links.json` is of quay-1, and holds its links. */
function nameParts(file: string): { first: string; rest: string } {
  const [first = '', ...more] = file.split('.');
  return { first, rest: more.slice(0, -1).join('.') };
}

/** The device of a file: the folder it is in, `NAME.whatever.json`, or the folder above where the name says what is in it. */
export function deviceOfFile({ path, inside }: PlacedFile): string | null {
  const within = parts(inside);
  if (within.length > 1) return within[0]!;
  const { first } = nameParts(within[0] ?? '');
  if (!GENERIC.test(first)) return first || null;
  const above = parts(path).at(-2);
  return above === undefined || above === '.' || above === '..' ? null : above;
}

/** What a file is called beside its device: `bond0` of `quay-1.bond0.txt`, and of `quay-1/bond0`. */
export function partOfFile(file: PlacedFile): string {
  const own = parts(file.path).at(-1) ?? '';
  const { first, rest } = nameParts(own);
  return rest !== '' ? rest : first;
}
