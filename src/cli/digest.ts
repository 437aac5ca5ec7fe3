import { configurationDigest, mstConfigOf, mstSwitches, regionMap } from '../core/network';
import { readDesignFile } from './files';

/** Name, revision and configuration digest of every region and of every switch that runs MSTP. */
export async function digest(file: string, options: { json?: boolean }): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const regions = design.regions.map((r) => ({
    region: r.name,
    revision: r.revision,
    digest: configurationDigest(regionMap(r)),
  }));
  const switches = mstSwitches(design).map((s) => {
    const { name, revision, digest: own } = mstConfigOf(design, s);
    return { switch: s.name, region: name, revision, digest: own };
  });
  if (options.json) process.stdout.write(`${JSON.stringify({ regions, switches })}\n`);
  else {
    for (const r of regions) process.stdout.write(`region '${r.region}' revision ${r.revision}: ${r.digest}\n`);
    for (const s of switches) process.stdout.write(`${s.switch}: '${s.region}' revision ${s.revision}: ${s.digest}\n`);
    if (regions.length + switches.length === 0)
      process.stdout.write('The design has no region, and no switch of it runs MSTP.\n');
  }
  return 0;
}
