'use client';
import type { ChangePlan } from '../../core/plan';
import { planCsv, planHtml, planMarkdown, planSettings } from '../../core/report';
import type { SheetOptions } from '../../core/report';
import { SaveMenu } from '../controls/SaveMenu';

interface Props extends Pick<SheetOptions, 'title'> {
  readonly plan: ChangePlan;
}

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
        { name: 'Table (CSV)', type: 'text/csv', end: 'csv', write: () => planCsv(plan) },
      ]}
    />
  );
}
