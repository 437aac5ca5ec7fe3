/** What is said beside a setting that has no effect where it is made, or that an engine leaves out. */
export const noteMessages = {
  'silence-classic': () =>
    'Silence guard has no effect here: in classic modes ports that are not designated send nothing.',
  'silence-shared': () => 'Silence guard has no effect here: the link is shared.',
  'silence-alone': () => 'Silence guard needs to be set at both ends: a root port without it sends no BPDUs.',
  'hello-classic': () => 'The hello time of a port has no effect in classic modes: the root decides.',
  'filter-and-guard': () => 'The BPDU filter drops BPDUs before BPDU guard sees them.',
  'guards-shared': () =>
    'Several ports of this segment have BPDU guard: which of them shuts down depends on who sends first. The trees show all of them shut down.',
  'keepalives-alone': () => 'The other end sends no keepalives: without them one-way detection never acts.',
  'keepalives-unlike': () =>
    'The two ends send keepalives at different intervals: the faster one can miss five by mistake.',
  'storm-shut': () => 'The trees show a loop that stays; a rehearsal shows how the storm limit ends it.',
  'untagged-shared': () => 'Untagged VLANs are not compared on a shared segment.',
  'access-classic': () =>
    'The other end is a classic switch with a tree per VLAN: in a rehearsal it falls silent here and the port is released; the trees show it as blocked.',
  'key-twice': ({ other }: { other: string }) =>
    `Bundle ${other} has the same key and system: to the partner the two are one, which is not modelled.`,
  'keepalive-of-pair': ({ vlans }: { vlans: string }) =>
    `This cable is the keepalive of a pair, and a link of the trees of VLAN ${vlans} as well: give it a VLAN that nothing else carries.`,
  'one-end-apart': () =>
    'The trees show its members as single ports, since their far ends differ; the rehearsal shows the bundle as the one port that it is.',
  'kept-alone': () => 'Only one end keeps its members: the other end goes back to better ones, and this end follows.',
  'kept-history': () =>
    'Which members are kept depends on what happened before; the verdict is that of a start with all members.',
} as const;
