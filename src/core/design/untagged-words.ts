/** What travels untagged at the two ends of a cable, in words. */
import { bundleAt, bundleById, farEnd, linkAt, portById, switchById, vlansAt } from './look-ups';
import type { Design } from './schema';

/**
 * Why a port or bundle is held inconsistent: `frames without a tag are of VLAN 10 here, and of VLAN 20 at quay-a 1`. Where the
 * ends agree by now, in general words.
 */
export function untaggedWords(design: Design, id: string): string {
  const first = bundleById(design, id)?.members[0] ?? id;
  const link = linkAt(design, first);
  const far = link && farEnd(link, first);
  const of = (port: string): string => {
    const { native } = vlansAt(design, port);
    return native === null ? 'no VLAN' : `VLAN ${native}`;
  };
  if (!far || !('port' in far) || of(first) === of(far.port)) return 'the ends differ in their untagged VLAN';
  const other = bundleAt(design, far.port) ?? portById(design, far.port)!;
  const name = `${switchById(design, other.switch)?.name} ${other.name}`;
  return `untagged frames belong to ${of(first)} here, and to ${of(far.port)} at ${name}`;
}
