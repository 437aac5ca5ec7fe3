'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { Bundle } from '../../core/design';
import { bundleSteps } from '../../core/analysis';
import type { ChangeStep } from '../../core/analysis';
import { useBench, useSession } from '../session/context';
import styles from './ChangeSteps.module.css';

const asText = (steps: readonly ChangeStep[]) =>
  steps
    .map(
      (s, i) =>
        `${i + 1}. ${s.at === '' ? 'Both ends' : s.at}: ${s.work}\n   No traffic meanwhile: ${s.meanwhile}\n   Verify: ${s.check}`,
    )
    .join('\n');

/** The steps that bring the bundle into service: which end first, what stops meanwhile, what to verify. */
export function ChangeSteps({ near, far }: { near: Bundle; far: Bundle | null }) {
  const { say } = useBench();
  const design = useSession((s) => s.design);
  const steps = useMemo(() => (far ? bundleSteps(design, near, far) : []), [design, near, far]);
  if (steps.length === 0)
    return <p className="sentence">Change steps need two ends with a member each, cabled to each other.</p>;
  const copy = () =>
    navigator.clipboard
      .writeText(asText(steps))
      .then(() => say({ text: 'Steps copied.' }))
      .catch(() =>
        say({ text: 'The browser refuses access to the clipboard: select the steps and copy them.', alarm: true }),
      );
  return (
    <section className={styles.changeSteps} aria-label="Change steps">
      <table className="rows">
        <thead>
          <tr>
            <td />
            <th scope="col">at</th>
            <th scope="col">change</th>
            <th scope="col">no traffic meanwhile</th>
            <th scope="col">verify</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s, i) => (
            <tr key={s.work}>
              <td className="mono">{i + 1}</td>
              <th scope="row">{s.at === '' ? 'both ends' : s.at}</th>
              <td>{s.work}</td>
              <td>{s.meanwhile}</td>
              <td>{s.check}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <Button onClick={() => void copy()}>Copy steps</Button>
      </p>
    </section>
  );
}
