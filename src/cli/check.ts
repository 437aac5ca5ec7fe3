import { count } from '../core/standard';
import { readDesignFile } from './files';

/** Status 0 and one line when the design is right, 1 and a line a fault when it is not. */
export async function check(file: string): Promise<number> {
  // The faults are what was asked for: they go to standard output.
  const design = await readDesignFile(file, (line) => void process.stdout.write(`${line}\n`));
  if (!design) return 1;
  process.stdout.write(
    `${file}: right. ${count(design.switches.length, 'switch', 'switches')}, ${count(design.links.length, 'link')}, ${count(design.vlans.length, 'VLAN')}.\n`,
  );
  return 0;
}
