import { asMeant } from '../../demo/brackwater';
import { compareWithDesign } from './compare/compare';
import { differencesCsv, differencesHtml, differencesMarkdown } from './report';
import { observationsOf } from './receptions';
import { unite } from './unite/unite';

const heard = [
  { from: 'gate', fromPort: '9', to: '=1+1 <b>shed|</b>', toPort: '2' },
  { from: 'gate', fromPort: '1', to: 'quay-a', toPort: '4' },
];
const network = unite(observationsOf(heard, { kind: 'lldp', name: 'lists', at: null }));
const differences = compareWithDesign(asMeant(), network);
const of = { title: 'Brackwater Ferries', at: '2026-03-01T09:30:00.000Z', network, differences };

describe('a report of differences', () => {
  it('has every difference and question in each form', () => {
    const [page, text, csv] = [differencesHtml(of), differencesMarkdown(of), differencesCsv(of)];
    expect(differences.length).toBeGreaterThan(5);
    expect(page.match(/<tr>/g)).toHaveLength(differences.length + 1);
    expect(text.match(/^\| (?!where|---)/gm)).toHaveLength(differences.length);
    expect(csv.trim().split('\r\n')).toHaveLength(1 + differences.length + network.questions.length);
    for (const form of [page, text]) expect(form).toContain('Read 2026-03-01 09:30 UTC');
  });

  it('is safe with whatever a neighbour calls itself', () => {
    expect(differencesHtml(of)).toContain('=1+1 &lt;b&gt;shed|&lt;/b&gt;');
    expect(differencesMarkdown(of)).toContain('=1+1 <b>shed\\|</b>');
    expect(differencesCsv(of)).toContain(`"'=1+1 <b>shed|</b>",unexpected`);
  });

  it('says so where nothing differs', () => {
    const clean = { ...of, differences: [], network: { ...network, questions: [] } };
    expect(differencesHtml(clean)).toContain('The network is as designed in everything that was read.');
    expect(differencesMarkdown(clean)).not.toContain('Open questions');
  });
});
