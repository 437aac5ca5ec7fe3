'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { Bundle } from '../../core/design';
import { bundleOrder } from '../../core/analysis';
import type { WorkStep } from '../../core/analysis';
import { useBench, useSession } from '../session/context';

const asText = (steps: readonly WorkStep[]) =>
  steps
    .map(
      (s, i) =>
        `${i + 1}. ${s.at === '' ? 'Both ends' : s.at}: ${s.work}\n   Meanwhile without traffic: ${s.meanwhile}\n   Before going on: ${s.check}`,
    )
    .join('\n');

/** Which end first, when to plug the next cable, what passes nothing meanwhile: steps to hand over. */
export function Order({ near, far }: { near: Bundle; far: Bundle | null }) {
  const { say } = useBench();
  const design = useSession((s) => s.design);
  const steps = useMemo(() => (far ? bundleOrder(design, near, far) : []), [design, near, far]);
  if (steps.length === 0)
    return <p className="sentence">An order of work needs two ends that lead to each other, with a member each.</p>;
  const copy = () =>
    navigator.clipboard
      .writeText(asText(steps))
      .then(() => say({ text: 'The steps are on the clipboard.' }))
      .catch(() => say({ text: 'The browser does not let the clipboard be written: select the steps.', alarm: true }));
  return (
    <section className="order-of-work" aria-label="Order of work">
      <table className="rows">
        <thead>
          <tr>
            <td />
            <th scope="col">at</th>
            <th scope="col">what to do</th>
            <th scope="col">without traffic meanwhile</th>
            <th scope="col">before going on</th>
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
        <Button onClick={() => void copy()}>Copy the steps</Button>
      </p>
    </section>
  );
}
