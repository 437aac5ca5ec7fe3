import { tableById } from '../../core/editing/tables';
import { columnAt, scrolledTo, staying } from './columns';

const ports = tableById('ports');
const at = (id: string) => ports.columns.findIndex((c) => c.id === id);

test('the columns that name a row stay in sight, and others come into sight beside them', () => {
  expect(ports.columns.filter((c) => c.stays).map((c) => c.id)).toEqual(['switch', 'name']);
  const { left, width } = columnAt(ports, at('silenceGuard'));
  const there = scrolledTo(ports, at('silenceGuard'), 0, 800);
  expect(there).toBe(left + width - 800);
  expect(scrolledTo(ports, at('silenceGuard'), there, 800)).toBe(there);
  expect(scrolledTo(ports, at('number'), there, 800)).toBe(0);
  expect(scrolledTo(ports, at('speed'), there, 800)).toBe(columnAt(ports, at('speed')).left - staying(ports));
  expect(scrolledTo(ports, at('switch'), there, 800)).toBe(there);
});
