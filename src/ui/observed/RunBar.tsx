'use client';
import type { StandInEvent } from '../../api/stand-in';
import { snmpFence } from '../../api/observe';
import { count } from '../../core/standard';
import { refName } from '../controls/chart-refs';
import { useKeepReading } from '../controls/useKeptReading';
import { useBench, useSession } from '../session/context';
import { askDevices, endWatch, watch } from './reading';
import { happenIn, runAsNetwork, stopNetwork, useRunning, useRunningFault } from './running';
import styles from './ObservedStage.module.css';

/** Seconds between two readings of a network that runs here. */
const WATCHED = 5;

/** Starts the design as a network, asks it, and watches it. */
export function useRun() {
  const { variantId } = useBench();
  const design = useSession((s) => s.design);
  const keep = useKeepReading();
  return (speed: number) =>
    void runAsNetwork(variantId, design, speed, ({ switches, community }) => {
      const [first] = switches;
      if (!first) return;
      const addresses = switches.map((s) => `${s.address}:${s.port}`);
      const asking = {
        addresses,
        credentials: { version: '2c', community } as const,
        fence: snmpFence.parse({ follow: false }),
      };
      void askDevices(variantId, asking, keep).then(() => watch(variantId, WATCHED));
      // A network that has ended is watched no longer.
    }).then(() => endWatch(variantId, keep));
}

/** What is selected fails, or comes back. */
function ByHand() {
  const { variantId, view, say } = useBench();
  const design = useSession((s) => s.design);
  const running = useRunning(variantId);
  const [ref] = view.selection;
  const isOne = view.selection.length === 1 && ref && (ref.kind === 'link' || ref.kind === 'switch');
  if (!running?.ready || !isOne)
    return <span className="quiet">Select a link or a switch on the chart to let it fail.</span>;
  const down = running.failed.has(ref.id);
  const event: StandInEvent =
    ref.kind === 'link'
      ? { kind: down ? 'restore' : 'fail', link: ref.id }
      : { kind: down ? 'on' : 'off', switch: ref.id };
  const happen = async () => {
    if (!(await happenIn(variantId, event))) say({ text: 'The network does not run any more.', alarm: true });
  };
  return (
    <button className="tool" onClick={() => void happen()}>
      {down ? 'Bring back' : 'Let fail'}: {refName(design, ref)}
    </button>
  );
}

/** The network that this design runs as, what can happen to it, and its end. */
export function RunBar() {
  const { variantId } = useBench();
  const running = useRunning(variantId);
  const fault = useRunningFault(variantId);
  if (!running)
    return fault === null ? null : (
      <p className={`alarm ${styles.runBar}`} role="alert">
        {fault}
      </p>
    );
  const { ready } = running;
  const [first] = ready?.switches ?? [];
  return (
    <div className={styles.runBar} role="group" aria-label="The running network">
      <span className={styles.pulse} aria-hidden="true" />
      {ready && first ? (
        <>
          <span>
            Runs as a network: {count(ready.switches.length, 'agent')} from{' '}
            <span className="mono">
              {first.address}:{first.port}
            </span>{' '}
            on, community <span className="mono">{ready.community}</span>
          </span>
          <ByHand />
        </>
      ) : (
        <span>The network starts…</span>
      )}
      <span className="grow" />
      <button className="tool" onClick={() => stopNetwork(variantId)}>
        Stop the network
      </button>
    </div>
  );
}
