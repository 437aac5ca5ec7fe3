import { readView, viewAddress } from './view';
import type { View } from './view';

const view: View = {
  tree: 'vlan-130',
  arrangement: 'cabling',
  vlan: 130,
  board: 'link-use',
  panel: 'goals',
  fold: 'groups',
  open: [],
  path: true,
  selection: [
    { kind: 'port', id: 'crane-yard:2' },
    { kind: 'host', id: 'a~b/c & d' },
  ],
};

test('a view survives the way through the address bar', () => {
  const address = viewAddress('d 1', 'trees', 'v1', view);
  const [path, query] = address.split('?');
  expect(path).toBe('/d/d%201/trees');
  expect(new URLSearchParams(query).get('variant')).toBe('v1');
  expect(readView(new URLSearchParams(query))).toEqual(view);
});

test('what an address does not say is the default, and what makes no sense is left out', () => {
  expect(readView(new URLSearchParams(''))).toEqual({
    tree: null,
    selection: [],
    arrangement: 'depth',
    vlan: null,
    board: 'chart',
    panel: 'selection',
    fold: 'auto',
    open: [],
    path: false,
  });
  expect(readView(new URLSearchParams('sel=nonsense&sel=planet~mars&sel=switch~gate&view=sideways&vlan=0x6'))).toEqual({
    vlan: null,
    tree: null,
    selection: [{ kind: 'switch', id: 'gate' }],
    arrangement: 'depth',
    board: 'chart',
    panel: 'selection',
    fold: 'auto',
    open: [],
    path: false,
  });
});
