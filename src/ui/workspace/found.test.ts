import { found, rankOf } from './found';
import type { Entry } from './found';

const entry = (group: string, title: string, hint = ''): Entry => ({ key: title, group, title, hint, run: () => {} });
const all = [
  entry('Commands', 'Fail or restore what is selected', 'X'),
  entry('Switches', 'gate-2', '00:00:5e:00:53:33'),
  entry('Switches', 'gate', '00:00:5e:00:53:32'),
  entry('Ports', 'gate 1'),
  entry('Bundles', 'quay-a to-gate'),
  entry('Words', 'root', 'The switch with the lowest bridge identifier.'),
];
const titles = (text: string) => found(all, text).map((e) => e.title);

describe('search', () => {
  test('the exact name stands first, then what begins so, then what has the word', () => {
    expect(titles('gate')).toEqual(['gate', 'gate-2', 'gate 1', 'quay-a to-gate']);
    expect(titles('GATE 1')).toEqual(['gate 1']);
  });
  test('words are looked for everywhere, in any order, and groups stay together', () => {
    expect(titles('selected fail')).toEqual(['Fail or restore what is selected']);
    expect(titles('53:33')).toEqual(['gate-2']);
    expect(titles('lowest')).toEqual(['root']);
    const groups = found(all, 'a').map((e) => e.group);
    expect(groups.filter((g, i) => groups.indexOf(g) === i)).toEqual(groups.filter((g, i) => g !== groups[i - 1]));
  });
  test('nothing typed lists all, and nothing found is none', () => {
    expect(titles('')).toHaveLength(all.length);
    expect(titles('harbour')).toEqual([]);
    expect(rankOf(entry('x', 'root'), 'rot')).toBeNull();
  });
});
