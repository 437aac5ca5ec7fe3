'use client';
import { useMemo, useState } from 'react';
import { compareWithDesign, drawObserved, gatherTrees } from '../../core/observe';
import { grouped } from '../../core/standard';
import { OneOf } from '../controls/OneOf';
import { TreeStrip } from '../controls/TreeStrip';
import { useKeptReading } from '../controls/useKeptReading';
import type { KeptNetwork } from '../controls/useKeptReading';
import { useBench, useSession } from '../session/context';
import { useInBrowser } from '../session/useInBrowser';
import { Changes } from './Changes';
import { Differences } from './Differences';
import { Questions, Sources } from './Lists';
import { OverTime } from './OverTime';
import { ObservedChart } from './ObservedChart';
import { ReadBar } from './ReadBar';
import { useReading } from './reading';
import type { Reading } from './reading';
import styles from './ObservedStage.module.css';

type Page = 'differences' | 'questions' | 'changes' | 'time' | 'sources';

/** What was read, as the design keeps it or as a watch has it, drawn, and where it differs. */
function useRead(reading: Reading) {
  const kept = useKeptReading();
  const design = useSession((s) => s.design);
  const { network = null, at = null } = reading.live ?? kept ?? {};
  const drawing = useMemo(() => network && drawObserved(network, 'As built').design, [network]);
  const differences = useMemo(() => (network ? compareWithDesign(design, network) : []), [design, network]);
  const open = useMemo(
    () => gatherTrees(differences.filter((d) => d.verdict !== 'not-observed')).length,
    [differences],
  );
  return { kept, network, drawing, at, differences, open };
}

/** As built: the network that is there, read, drawn, and held against the design. */
export function ObservedStage() {
  const { variantId } = useBench();
  const reading = useReading(variantId);
  const { kept, network, drawing, at, differences, open } = useRead(reading);
  const inBrowser = useInBrowser();
  const [page, setPage] = useState<Page>('differences');
  const questions = (network?.questions.length ?? 0) + reading.faults.length;
  const number = (n: number, alarm: boolean) => (
    <span className={alarm && n > 0 ? 'alarm' : 'quiet'}>{grouped(n)}</span>
  );
  const changes = reading.moments.reduce((sum, m) => sum + m.changes.length, 0);
  const deviates = network?.questions.some((q) => q.kind === 'deviates') ?? false;
  const tabs = [
    { id: 'differences' as const, name: <>Differences {number(open, true)}</> },
    { id: 'questions' as const, name: <>Questions {number(questions, deviates)}</> },
    ...(reading.asked ? [{ id: 'changes' as const, name: <>Changes {number(changes, true)}</> }] : []),
    ...(reading.captures.length > 0 ? [{ id: 'time' as const, name: <>Over time</> }] : []),
    { id: 'sources' as const, name: <>Sources</> },
  ];
  return (
    <>
      <TreeStrip />
      <main className={styles.stage}>
        <ReadBar {...{ reading, network, drawing, at }} />
        {network && drawing ? (
          <>
            <section className={`chart-side ${styles.chart}`} aria-label="The network as designed or as built">
              {inBrowser && <ObservedChart {...{ network, drawing, differences }} />}
            </section>
            <section className={styles.side} aria-label="What was read">
              <OneOf
                className="boards"
                label="What is shown"
                options={tabs}
                value={tabs.some((t) => t.id === page) ? page : 'differences'}
                onPick={setPage}
              />
              {page === 'questions' && <Questions network={network} faults={reading.faults} />}
              {page === 'changes' && reading.asked && <Changes {...reading} />}
              {page === 'time' && reading.captures.length > 0 && <OverTime captures={reading.captures} />}
              {page === 'sources' && <Sources files={reading.files} network={network} />}
              {(page === 'differences' || !tabs.some((t) => t.id === page)) && (
                <Differences {...{ network, differences }} />
              )}
            </section>
          </>
        ) : (
          <NothingYet reading={reading} kept={kept} />
        )}
      </main>
    </>
  );
}

function NothingYet({ reading, kept }: { reading: Reading; kept: KeptNetwork | null }) {
  if (kept && !kept.damaged) return <p className="quiet pad">Unpacking what was read…</p>;
  return (
    <div className={styles.empty}>
      {kept?.damaged && (
        <p className="alarm" role="alert">
          The reading that this design keeps is damaged and cannot be shown: read the network again.
        </p>
      )}
      <h2>The network that is there is not read yet</h2>
      <p>
        Drop files on the page: answers of SNMP agents (<code>snmpwalk -On</code>), JSON of <code>ip</code> and{' '}
        <code>bridge</code>, LLDP neighbours, captures, or settings after OpenConfig; one file or one folder a device.
        Or ask the devices themselves by SNMP, from one address on. What is read is drawn, and held against this design
        field by field.
      </p>
      {reading.files.some((f) => f.fault) && <Sources files={reading.files} network={null} />}
    </div>
  );
}
