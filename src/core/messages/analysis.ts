/** Paths, placed roots, options for two links, typed traffic and regions: what cannot be done or found, by code. */

export const analysisMessages = {
  'same-place': () => 'Both ends are the same: choose two different places.',
  'host-without-port': ({ name }: { name: string }) => `${name} has no working port in this tree.`,
  'switch-not-in-tree': ({ name, why }: { name: string; why: 'off' | 'no-vlan' | 'not-run' }) =>
    why === 'off'
      ? `${name} is not in this tree: it is off.`
      : why === 'no-vlan'
        ? `${name} is not in this tree: none of its ports carries the VLAN.`
        : `${name} is not in this tree: it does not run it.`,
  'no-path': ({ from, to }: { from: string; to: string }) =>
    `No path: ${from} and ${to} are in different partitions of the tree.`,
  'vlan-missing': ({ vlan, port, name }: { vlan: number; port: string; name: string }) =>
    `Frames of VLAN ${vlan} are lost at port ${port} of ${name}: the tree forwards there, but the port does not carry the VLAN.`,
  'end-missing': () => 'One of its ends is not in the design.',

  'two-ranks': ({ name }: { name: string }) => `${name} has two ranks in one tree: give it one.`,
  'not-in-tree': ({ name, tree }: { name: string; tree: string }) =>
    `${name} is not in tree ${tree}: none of its ports is in the tree, so it cannot be root there.`,
  'too-many-ranks': () => 'There are 16 legal priorities: at most 15 switches can be ranked in one tree.',
  'no-tier': ({ tier }: { tier: string }) => `No switch of the design is in the ${tier} tier.`,
  'balance-nowhere': () => 'No tree has both switches: balance needs two that have ports in the same trees.',
  'balance-needs-two': () => 'Balance needs two different switches.',

  'not-parallel': () => 'The two links join different switches: only parallel links can be compared.',
  'select-two-links': () => 'Select two links between the same two switches to compare the options.',
  'in-larger-bundle': () => 'The links are in a bundle with other links: only two links alone can be compared.',
  'carry-nothing': () => 'Neither link carries a tree: both switches have better paths to the roots.',
  'one-tree-decides': () =>
    'Splitting by VLAN needs two or more trees over these links: one tree decides here for all VLANs.',
  'no-bundling': ({ reason }: { reason: string }) => `Bundling: ${reason}`,

  'typed-line': ({ line, reason }: { line: number; reason: string }) =>
    `Line ${line}: ${reason} A line has from, to, Mb/s, then if wanted VLAN, source port, destination port.`,
  'typed-incomplete': ({ text }: { text: string }) => `The line '${text}' is incomplete.`,
  'typed-load': ({ text }: { text: string }) => `The load '${text}' is not a number of Mb/s.`,
  'typed-vlan': ({ text }: { text: string }) => `The VLAN '${text}' is not a number from 1 to 4094.`,
  'typed-port': ({ text }: { text: string }) => `The port '${text}' is not a TCP or UDP port.`,

  'region-name': ({ a, b, nameA, nameB }: { a: string; b: string; nameA: string; nameB: string }) =>
    `Region name: '${nameA}' on ${a}, '${nameB}' on ${b}.`,
  'region-revision': ({ a, b, revisionA, revisionB }: { a: string; b: string; revisionA: number; revisionB: number }) =>
    `Revision: ${revisionA} on ${a}, ${revisionB} on ${b}.`,
  'region-map': ({
    a,
    b,
    vlans,
    one,
    mapA,
    mapB,
  }: {
    a: string;
    b: string;
    vlans: string;
    one: boolean;
    mapA: number;
    mapB: number;
  }) => `${one ? 'VLAN' : 'VLANs'} ${vlans}: ${instance(mapA)} on ${a}, ${instance(mapB)} on ${b}.`,
  'same-region': ({ a, b }: { a: string; b: string }) =>
    `${a} and ${b} have the same name, revision and digest: one region, if links of it join them.`,

  'run-limit': ({ seconds, handled }: { seconds: string; handled: number }) =>
    `Stopped at ${seconds} s, at the limit of ${handled} frames and timers. The run until then is kept.`,
  'run-cancelled': ({ seconds }: { seconds: string }) => `Cancelled at ${seconds} s. The run until then is kept.`,
  'run-restless': ({ ports }: { ports: string }) => `Not converged: ${ports} keep changing.`,
} as const;

const instance = (number: number): string => (number === 0 ? 'the CIST' : `instance ${number}`);
