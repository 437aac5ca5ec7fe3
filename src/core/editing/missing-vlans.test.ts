import { asCabled } from '../../demo/brackwater';
import { addElement, setField } from '../design';
import { missingVlans } from './missing-vlans';

const design = asCabled();

test('VLANs that a port, a bundle or a host is given and that are not there are found, each once', () => {
  expect(
    missingVlans(design, [
      setField('port', 'gate:1', 'vlans', '110,300-302'),
      setField('host', 'ferry-server', 'vlan', 301),
      setField('port', 'gate:1', 'native', 299),
    ]),
  ).toEqual([299, 300, 301, 302]);
  const host = { id: 'h', name: 'h', vlan: 77 };
  expect(missingVlans(design, [addElement('host', host)])).toEqual([77]);
});

test('known VLANs, all VLANs, long ranges and other settings offer nothing', () => {
  expect(
    missingVlans(design, [
      setField('port', 'gate:1', 'vlans', '110,120'),
      setField('port', 'gate:1', 'vlans', 'all'),
      setField('port', 'gate:1', 'vlans', null),
      setField('port', 'gate:1', 'vlans', '200-400'),
      setField('switch', 'gate', 'priority', 4096),
    ]),
  ).toEqual([]);
});
