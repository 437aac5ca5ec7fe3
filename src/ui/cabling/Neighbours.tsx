'use client';
import Button from '@mui/material/Button';
import type { Finding } from '../../core/editing';
import { linkAt, portsOf, setField } from '../../core/design';
import { Ago } from '../controls/Ago';
import { useBench } from '../session/context';
import type { Ref } from '../session/view';
import type { Cabling } from './useCabling';
import type { NeighbourCheck } from './useNeighbours';
import { count } from '../../core/standard';
import styles from './Neighbours.module.css';

const ACCEPT: Record<Finding['verdict'], string> = {
  'as drawn': '',
  'other port': 'Move the cable',
  unexpected: 'Draw it',
  missing: 'Remove it',
};

interface Props {
  readonly cabling: Cabling;
  readonly check: NeighbourCheck;
  readonly onFiles: () => void;
}

/** What the switches say of their neighbours, against the drawing, cable by cable. */
export function Neighbours({ cabling, check, onFiles }: Props) {
  const { design, run, selectMany } = cabling;
  const { go } = useBench();
  const { findings, receptions, at } = check;
  if (!findings || !receptions) return <NoneYet onFiles={onFiles} />;
  const accept = (list: readonly Finding[]) =>
    run({
      label:
        list.length === 1
          ? `${ACCEPT[list[0]!.verdict]}: ${list[0]!.a.name} ${list[0]!.a.port} – ${list[0]!.b.name} ${list[0]!.b.port}`
          : `Accept ${list.length} LLDP differences`,
      edits: check.accept(list),
    });
  const fail = ({ link, a, b }: Finding) =>
    run({
      label: `Mark as failed: ${a.name} ${a.port} – ${b.name} ${b.port}`,
      edits: [setField('link', link!, 'down', true)],
    });
  const show = (finding: Finding) => {
    const link = finding.link;
    if (link) return selectMany([{ kind: 'link', id: link }]);
    const ends = [finding.a, finding.b].flatMap(({ name, port }): Ref[] => {
      const at = design.switches.find((s) => s.name === name);
      const own = at && portsOf(design, at.id).find((p) => p.name === port);
      return own && linkAt(design, own.id)
        ? [{ kind: 'port' as const, id: own.id }]
        : at
          ? [{ kind: 'switch' as const, id: at.id }]
          : [];
    });
    selectMany(ends);
  };
  const telling = new Set(receptions.map((h) => h.from)).size;
  return (
    <div className="neighbours">
      <Sum {...{ findings, telling, at, accept, onFiles }} onForget={check.forget} onMore={() => go('as-built')} />
      <Findings findings={findings} accept={accept} show={show} fail={fail} />
    </div>
  );
}

function NoneYet({ onFiles }: Pick<Props, 'onFiles'>) {
  return (
    <div className={styles.dockEmpty}>
      <p>
        Compare the drawing with LLDP: drop the neighbour lists of the switches here, as JSON (one file or folder per
        switch, named after it) or as one CSV with <code>switch,port,neighbour,neighbour_port</code>.
      </p>
      <Button variant="contained" onClick={onFiles}>
        Choose files…
      </Button>
    </div>
  );
}

interface FindingsProps {
  readonly findings: readonly Finding[];
  readonly accept: (list: readonly Finding[]) => void;
}

interface SumProps extends FindingsProps, Pick<Props, 'onFiles'> {
  /** Switches whose lists there are. */
  readonly telling: number;
  readonly at: number | null;
  readonly onForget: () => void;
  readonly onMore: () => void;
}

/** How many cables are as drawn, and how many are not. */
function Sum({ findings, telling, at, accept, onFiles, onForget, onMore }: SumProps) {
  const open = findings.filter((f) => f.verdict !== 'as drawn');
  return (
    <div className="neighbours-sum">
      <p role="status">
        {count(telling, 'switch reports', 'switches report')}:{' '}
        {(['as drawn', 'missing', 'other port', 'unexpected'] as const).map((v, i) => {
          const n = findings.filter((f) => f.verdict === v).length;
          return (
            <span key={v} className={v === 'as drawn' || n === 0 ? undefined : 'alarm'}>
              {i > 0 && ', '}
              {v === 'as drawn'
                ? `${count(n, 'cable')} as drawn`
                : `${n} ${v === 'other port' ? 'in another port' : v}`}
            </span>
          );
        })}
        {at !== null && (
          <span className="quiet">
            {' '}
            · read <Ago at={at} />
          </span>
        )}
      </p>
      <span className="grow" />
      {open.length > 0 && <Button onClick={() => accept(open)}>Accept all {open.length}</Button>}
      <Button onClick={onFiles}>More files…</Button>
      <Button onClick={onMore} title="All that was read, against the design field by field">
        As built…
      </Button>
      <Button onClick={onForget}>Clear the check</Button>
    </div>
  );
}

type Doing = (finding: Finding) => void;

function Findings({ findings, accept, show, fail }: FindingsProps & { show: Doing; fail: Doing }) {
  return (
    <div className={styles.neighboursList}>
      <table>
        <thead>
          <tr>
            <th>Verdict</th>
            <th>Switch, port</th>
            <th>Switch, port</th>
            <th>Finding</th>
            <th>
              <span className="visually-hidden">Accept</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {findings.map((f) => (
            <tr key={f.key} className={f.verdict === 'as drawn' ? 'quiet' : undefined}>
              <th scope="row">
                <button className={`plain ${f.verdict === 'as drawn' ? '' : 'alarm'}`} onClick={() => show(f)}>
                  {f.verdict === 'other port' ? 'in another port' : f.verdict}
                </button>
              </th>
              <td>
                {f.a.name} <span className="mono">{f.a.port}</span>
              </td>
              <td>
                {f.b.name} <span className="mono">{f.b.port}</span>
              </td>
              <td>{f.sentence}</td>
              <td className="number">
                {f.verdict !== 'as drawn' && (
                  <button className="tool" onClick={() => accept([f])}>
                    {ACCEPT[f.verdict]}
                  </button>
                )}
                {f.verdict === 'missing' && f.link && (
                  <button className="tool" onClick={() => fail(f)} title="The cable stays in the drawing, and is down">
                    Mark as failed
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
