/** A sample of every form of the sentences about networks that are read. */
export const observeSamples = {
  'wrong-value': [[{ object: 'dot1dStpDesignatedRoot', index: '0', wanted: '8 octets' }]],
  'no-objects': [[{ source: 'quay-1.walk' }]],
  'one-name': [[{ name: 'shed', macs: ['00:00:5e:00:53:01', '00:00:5e:00:53:02'] }]],
  contradicts: [[{ name: 'shed', field: 'priority', a: '4096', b: '8192', from: '192.0.2.1', against: 'shed.json' }]],
  'several-heard': [[{ ends: ['shed 1', 'yard 2', 'gate 3'] }]],
  'inferred-links': [
    [{ links: ['shed 1 – yard 2'], certainty: 'bpdu' as const }],
    [{ links: ['shed 1 – yard 2', 'shed 2 – gate 1'], certainty: 'lacp' as const }],
  ],
  'open-ends': [
    [{ name: 'shed', ports: ['1'] }],
    [{ name: 'shed', ports: ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10'] }],
  ],
  'many-behind': [[{ port: 'gate 7', n: 12 }]],
  'neighbours-only': [[{ name: 'shed' }]],
  'not-drawn': [[{ at: 'shed', why: 'Forward delay 2 is not legal: a whole number from 4 to 30.' }]],
  'no-map': [[{ names: ['shed'] }], [{ names: ['shed', 'yard'] }]],
  'designated-twice': [[{ tree: 'vlan-10', ends: ['shed 1', 'yard 2'] }]],
  'designated-none': [[{ tree: 'cist', ends: ['shed 1', 'yard 2'] }]],
  'one-way': [[{ near: 'shed p1', far: 'yard p2' }]],
  'unlike-digest': [
    [{ name: 'shed', region: 'harbour, revision 1', digest: 'AC36', others: ['yard', 'gate'], usual: '495E' }],
  ],
  'decides-otherwise': [[{ name: 'shed', tree: 'rstp', ports: ['root in place of alternate at p1'] }]],
  'not-a-capture': [[{ file: 'notes.txt' }]],
  'capture-cut': [[{ file: 'wire.pcap', frames: 1 }], [{ file: 'wire.pcap', frames: 2000 }]],
  'capture-link-type': [[{ file: 'wire.pcap', type: 127 }]],
  'capture-empty': [[{ file: 'wire.pcap' }]],
  'file-too-large': [[{ file: 'all.json', size: 2_100_000_000, most: 200_000_000 }]],
  'unknown-source': [[{ file: 'notes.txt' }]],
  'no-source': [[{ path: '/srv/reading' }]],
  'broken-source': [[{ file: 'link.json', where: 'The file is not complete JSON.' }]],
  'no-answer': [[{ address: '192.0.2.1', seconds: 4 }]],
  'stopped-answering': [[{ address: '192.0.2.1', object: '1.3.6.1.2.1.17' }]],
  'walk-loops': [[{ address: '192.0.2.1', object: '1.3.6.1.2.1.17' }]],
  'walk-long': [[{ address: '192.0.2.1', object: '1.3.6.1.2.1.17', most: 50_000 }]],
  'refused-key': [[{ address: '192.0.2.1', why: 'Wrong digest' }]],
  'bad-address': [[{ text: 'shed.example.net' }]],
  'beyond-fence': [[{ n: 1, fence: '192.0.2.0/24' }], [{ n: 12, fence: '192.0.2.0/24, 16 hops or 500 devices' }]],
  'no-credentials': [[]],
};

/** A part that stands inside a sentence. */
export const roleSamples = { 'role-against': [[{ port: 'p1', reported: 'root', solved: 'alternate' }]] };

export const changeSamples = {
  root: [[{ tree: 'vlan-10', before: 'shed', after: 'yard' }]],
  port: [[{ tree: 'vlan-10', port: 'shed p1', before: 'alternate discarding', after: 'root forwarding' }]],
  members: [[{ bundle: 'shed b1', before: 2, after: 1, of: 2 }]],
  silent: [[{ name: 'shed' }]],
  answers: [[{ name: 'shed' }]],
  unplugged: [[{ link: 'shed p1 – yard p2' }]],
  plugged: [[{ link: 'shed p1 – yard p2' }]],
};

export const captureSamples = {
  root: [[{ tree: 'rstp', sender: 'shed', root: 'yard' }]],
  role: [[{ tree: 'rstp', port: 'shed p1', before: 'root', after: 'designated' }]],
  change: [[{ tree: 'rstp', port: 'shed p1' }]],
  notified: [[{ sender: 'shed' }]],
  silent: [[{ tree: 'rstp', port: 'shed p1', seconds: 7.5 }], [{ tree: 'rstp', port: 'shed p1', seconds: null }]],
  lacp: [[{ port: 'shed p1', now: ['activity', 'synchronization'], before: ['activity', 'expired'] }]],
};
