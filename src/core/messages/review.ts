/** What a review finds, by code. `of`: trees or VLANs in words; names begin with their switch. */
import { count, grouped, rateWords } from '../standard';

interface Named {
  readonly name: string;
}
interface NamedOf extends Named {
  readonly of: string;
}
interface Ends {
  readonly a: string;
  readonly b: string;
}

export const reviewMessages = {
  'root-by-mac': ({ name, of, priority }: NamedOf & { priority: number }) =>
    `Switch ${name} is root of ${of} by its MAC address only: others have priority ${grouped(priority)} too, so an older switch takes over (802.1Q 13.26).`,
  'root-on-access': ({ name, of }: NamedOf) =>
    `Switch ${name} of the access tier is root of ${of}: traffic between others crosses a closet.`,
  'successor-on-access': ({ name, of, root }: NamedOf & { root: string }) =>
    `If ${root} fails, ${name} of the access tier becomes root of ${of}.`,
  'successor-by-mac': ({ name, of, root }: NamedOf & { root: string }) =>
    `If ${root} fails, ${name} becomes root of ${of} by its MAC address only: no successor is set.`,
  'link-idle': ({ a, b }: Ends) => `Link ${a} – ${b} is blocked in every tree: it carries nothing until another fails.`,
  'link-carries-all': ({ a, b, trees }: Ends & { trees: number }) =>
    `Link ${a} – ${b} carries all ${count(trees, 'tree')}, while other links are blocked in every one.`,
  'scales-mixed': ({ long, short }: { long: number; short: number }) =>
    `${count(long, 'switch has', 'switches have')} the 32-bit cost scale and ${count(short, 'switch has', 'switches have')} the 16-bit one: costs of the two cannot be compared (802.1Q 13.18.1).`,
  'half-duplex': ({ a, b }: Ends) =>
    `Link ${a} – ${b} is half duplex: rapid switches treat it as shared, and a port there waits for two forward delays.`,
  'vlans-differ': ({ a, b, vlans }: Ends & { vlans: string }) =>
    `The ends of ${a} – ${b} do not carry the same VLANs: ${vlans} at one end only.`,
  'untagged-differ': ({ a, b, words }: Ends & { words: string }) =>
    `The ends of ${a} – ${b} differ in their untagged VLAN: ${words}.`,
  'edge-to-switch': ({ a, b }: Ends) =>
    `Port ${a} is an edge port and leads to switch port ${b}: it forwards before spanning tree has looked, and frames loop until a BPDU is received.`,
  'host-not-edge': ({ name, host }: Named & { host: string }) =>
    `Port ${name} leads to host ${host} and is no edge port: it waits for two forward delays after each link-up, and each flap is a topology change.`,
  'host-no-guard': ({ name, host }: Named & { host: string }) =>
    `Port ${name} leads to host ${host} without BPDU guard: a switch that is plugged in there takes part, and can become root.`,
  'filter-loops': ({ name, of }: NamedOf) => `BPDU filter at ${name} leaves a ring open: frames of ${of} loop.`,
  'filter-to-switch': ({ a, b }: Ends) =>
    `BPDU filter at ${a} stops BPDUs towards switch port ${b}: a loop through there is not seen.`,
  'root-guard-missing': ({ a, b }: Ends) =>
    `Port ${a} leads to access switch port ${b} without root guard: a switch behind it that claims a better identifier becomes root.`,
  'root-guard-on-root-port': ({ name, of }: NamedOf) =>
    `Port ${name} has root guard, and receives a better root in ${of}: it is held blocked.`,
  'loop-guard-missing': ({ name, of }: NamedOf) =>
    `Port ${name} is blocked in ${of} and has neither loop guard, silence guard nor one-way detection: if its link carries frames one way only, it forwards and closes a loop.`,
  'bundle-down': ({ a, b, why }: Ends & { why: string }) => `Bundle ${a} – ${b} does not come up. ${why}`,
  'bundle-one-cable': ({ a, b }: Ends) => `Bundle ${a} – ${b} has one working cable: it protects against nothing.`,
  'bundle-static': ({ a, b }: Ends) =>
    `Bundle ${a} – ${b} is static: a member that leads elsewhere, or carries frames one way only, goes unnoticed.`,
  'bundle-against': ({ a, b }: Ends) =>
    `Bundle ${a} is static and ${b} negotiates: one end forwards, the other does not.`,
  'member-miscabled': ({ name, bundle }: Named & { bundle: string }) =>
    `Member ${name} of bundle ${bundle} leads somewhere else than the other members do.`,
  'member-suspended': ({ name, bundle, why }: Named & { bundle: string; why: string }) =>
    `Member ${name} of bundle ${bundle} does not carry. ${why}`,
  'bundle-odd': ({ a, b, members }: Ends & { members: number }) =>
    `Bundle ${a} – ${b} has ${members} active members: eight hash values do not divide evenly over them.`,
  'bundle-minimum': ({ a, b, minimum }: Ends & { minimum: number }) =>
    `Bundle ${a} – ${b} goes down with its first member: ${count(minimum, 'member is', 'members are')} the minimum.`,
  'bundle-slow': ({ a, b }: Ends) =>
    `Bundle ${a} – ${b} has the long timeout: a member that is silent with its light on is given up after 90 s (802.1AX 6.4.4).`,
  'vlan-parted': ({ vlans, names }: { vlans: string; names: string }) =>
    `${vlans}: no cable that carries it reaches ${names}.`,
  'vlan-parted-by-tree': ({ vlans, names }: { vlans: string; names: string }) =>
    `${vlans}: cables reach ${names}, but the tree that the VLAN follows is blocked where they run.`,
  'vlan-no-port': ({ name, vlans }: Named & { vlans: string }) =>
    `Switch ${name} has a priority for ${vlans} and no port that carries it.`,
  'vlan-not-made': ({ vlans }: { vlans: string }) =>
    `${vlans} is given to ports and is not in the design: no tree shows it.`,
  'too-deep': ({ name, of }: NamedOf) =>
    `Switch ${name} is farther from the root of ${of} than its word reaches: it forms a tree of its own.`,
  'seven-switches': ({ of, links }: { of: string; links: number }) =>
    `In ${of} frames pass ${count(links + 1, 'switch', 'switches')} at most: usual timers are made for seven (802.1D-1998 8.10.2).`,
  'timers-diameter': ({ name, of, links, needs, has }: NamedOf & { links: number; needs: number; has: number }) =>
    `The maximum age ${has} s of root ${name} is too short for ${count(links + 1, 'switch', 'switches')} in a row in ${of}: ${needs} s are recommended.`,
  'hello-unlike': ({ names }: { names: string }) =>
    `Switches that are or become root have different hello times (${names}): timers change when the root does.`,
  'region-differs': ({ a, b, words }: Ends & { words: string }) =>
    `Switches ${a} and ${b} are cabled and not in one region: ${words}`,
  'instance-empty': ({ instance, region }: { instance: number; region: string }) =>
    `Instance ${instance} of region ${region} has no VLAN of the design: it runs for nothing.`,
  'vlan1-mapped': ({ instance, region }: { instance: number; region: string }) =>
    `Region ${region} maps VLAN 1 to instance ${instance}: switches outside expect it in the common tree.`,
  'instances-alike': ({ instances }: { instances: string }) =>
    `Instances ${instances} have the same roots and blocked ports: one of them would do.`,
  'too-many-instances': ({ region, instances }: { region: string; instances: number }) =>
    `Region ${region} has ${instances} instances: 64 is the most that a bridge has to hold (802.1Q 13.14).`,
  'too-many-trees': ({ name, trees, most }: Named & { trees: number; most: number }) =>
    `Switch ${name} has ${trees} spanning trees to run and is able to run ${most}: VLANs beyond have no tree there, and a loop in them lasts.`,
  'modes-mixed': ({ words }: { words: string }) =>
    `Several kinds of spanning tree run: ${words}. Where they meet, only the common tree is known to both.`,
  'classic-beside-rapid': ({ a, b }: Ends) =>
    `Port ${a} faces classic switch port ${b}: rapid agreement stops there, and changes take two forward delays.`,
  'trees-joined': ({ name, vlan }: Named & { vlan: number }) =>
    `Port ${name} carries VLAN ${vlan} alone and untagged towards switches with one tree: the two trees become one.`,
  'pair-inconsistent': ({ name, what, why }: Named & { what: string; why: string }) =>
    `Pair ${name} is inconsistent in ${what}. ${why}`,
  'peer-one-cable': ({ name }: Named) => `The peer link of pair ${name} is one cable: its loss splits the pair.`,
  'pair-no-keepalive': ({ name }: Named) =>
    `Pair ${name} has no keepalive of its own: when the peer link is lost, neither switch knows whether the other one lives.`,
  'keepalive-over-peer': ({ name }: Named) =>
    `The keepalive of pair ${name} runs over the peer link: both are lost together.`,
  'single-link': ({ names, vlans }: { names: string; vlans: string }) =>
    `One link holds ${names} in ${vlans}: its loss separates them, and no other cable does.`,
  'single-switch': ({ name, vlans }: Named & { vlans: string }) =>
    `Switch ${name} is a single point of failure in ${vlans}: without it others are separated.`,
  'management-one-link': ({ vlan, names }: { vlan: string; names: string }) =>
    `${vlan} reaches ${names} over one link: when that is lost, they cannot be managed any more.`,
  overload: ({ name, percent, load, rate }: Named & { percent: number; load: number; rate: number }) =>
    `Port ${name} would send ${percent} % of its rate on an ordinary day: ${grouped(load)} Mb/s of ${rateWords(rate)}.`,
  'uplink-undescribed': ({ name, ports }: Named & { ports: number }) =>
    `Switch ${name} has ${count(ports, 'uplink')} without a description.`,
} as const;
