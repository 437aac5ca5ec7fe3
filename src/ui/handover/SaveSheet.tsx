'use client';
import type { ChangePlan } from '../../core/plan';
import { planCsv, planHtml, planMarkdown, planSettings } from '../../core/report';
import type { SheetOptions } from '../../core/report';
import { SaveMenu } from '../controls/SaveMenu';

interface Props extends Pick<SheetOptions, 'title'> {
  readonly plan: ChangePlan;
}

const YANG = [
  { id: 'openconfig', name: 'Settings that change (OpenConfig JSON)' },
  { id: 'ieee-yang', name: 'Settings that change (IEEE YANG JSON)' },
] as const;

/** The work sheet as a file. */
export function SaveSheet({ plan, title }: Props) {
  const sheet = () => ({ title, date: new Date().toISOString().slice(0, 10) });
  return (
    <SaveMenu
      title="Work sheet…"
      file={`plan ${title.replaceAll('→', 'to')}`}
      forms={[
        { name: 'To print (HTML)', type: 'text/html', end: 'html', write: () => planHtml(plan, sheet()) },
        { name: 'Markdown', type: 'text/markdown', end: 'md', write: () => planMarkdown(plan, sheet()) },
        { name: 'Settings by device (text)', type: 'text/plain', end: 'txt', write: () => planSettings(plan) },
        ...YANG.map(({ id, name }) => ({
          name,
          type: 'application/json',
          end: `${id}.json`,
          write: async () => {
            const { exportDifference } = await import('../../core/formats');
            return exportDifference(id, plan.steps[0]!.before, plan.steps.at(-1)!.after) ?? '';
          },
        })),
        { name: 'Table (CSV)', type: 'text/csv', end: 'csv', write: () => planCsv(plan) },
      ]}
    />
  );
}
