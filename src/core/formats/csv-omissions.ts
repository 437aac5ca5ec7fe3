/** What a design has that a table of it has no column for: said before the table is saved. */
import { vlansAt } from '../design';
import type { Design } from '../design';
import { count } from '../standard';

export type CsvTable = 'switches' | 'links' | 'vlans';

const IN_SWITCHES = new Set(['id', 'name', 'mac', 'priority', 'tier', 'protocol', 'costScale', 'x', 'y']);
const IN_LINKS = new Set([
  ...['id', 'switch', 'name', 'number', 'speed', 'cost', 'priority', 'vlans', 'native', 'description'],
]);

/** Elements with a field that is set and that no column has. */
const withMore = (list: readonly object[], known: ReadonlySet<string>): number =>
  list.filter((item) => Object.entries(item).some(([field, value]) => value !== undefined && !known.has(field))).length;

function linkOmissions(design: Design): string[] {
  const ports = design.links.map(({ a, b }) => [a, b].flatMap((end) => ('port' in end ? [end.port] : [])));
  const cables = ports.filter((ends) => ends.length === 1).length;
  const unlike = ports.filter(([a, b]) => {
    if (a === undefined || b === undefined) return false;
    const [x, y] = [vlansAt(design, a), vlansAt(design, b)];
    return x.vlans !== y.vlans || x.native !== y.native;
  }).length;
  const more = withMore(design.ports, IN_LINKS);
  const down = design.links.filter((l) => l.down).length;
  return [
    cables > 0 && `${count(cables, 'cable')} to hosts`,
    design.bundles.length > 0 && count(design.bundles.length, 'bundle'),
    unlike > 0 && `the VLANs of the second end of ${count(unlike, 'link')} whose ends differ`,
    more > 0 && `guards and other settings of ${count(more, 'port')}`,
    down > 0 && `that ${count(down, 'link is', 'links are')} down`,
  ].filter((words) => words !== false);
}

/** In words, what of the design is not in a table; empty where the table has all of it. */
export function csvOmissions(design: Design, table: CsvTable): string[] {
  const switches = withMore(design.switches, IN_SWITCHES);
  const own = {
    switches: () =>
      switches > 0 ? [`priorities by tree, timers and other settings of ${count(switches, 'switch', 'switches')}`] : [],
    links: () => linkOmissions(design),
    vlans: () => [],
  }[table]();
  const elsewhere = [
    design.hosts.length > 0 && count(design.hosts.length, 'host'),
    design.pairs.length > 0 && count(design.pairs.length, 'pair'),
    design.regions.length > 0 && count(design.regions.length, 'region'),
    design.goals.length > 0 && count(design.goals.length, 'goal'),
    design.scripts.length > 0 && count(design.scripts.length, 'script'),
    design.demands.length > 0 && `${count(design.demands.length, 'row')} of traffic`,
    design.risks.length > 0 && count(design.risks.length, 'risk group'),
    design.accepted.length > 0 && count(design.accepted.length, 'accepted finding'),
    design.workplaces.length > 0 && count(design.workplaces.length, 'workplace'),
    design.readings.length > 0 && 'what was read of the network',
    design.notes.length > 0 && count(design.notes.length, 'note'),
    design.cableCosts.length > 0 && count(design.cableCosts.length, 'cable cost'),
  ].filter((words) => words !== false);
  return [...own, ...(elsewhere.length > 0 ? [`what no table has: ${elsewhere.join(', ')}`] : [])];
}
