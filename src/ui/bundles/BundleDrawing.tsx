'use client';
import { faceBundle, farEnd, hostById, linkAt, linkSpeed, portById, switchById } from '../../core/design';
import type { Bundle, Design } from '../../core/design';
import type { MemberVerdict } from '../../core/network';
import type { SolvedDesign } from '../../core/trees';
import { speedLabel } from '../chart/ends';
import styles from './BundleDrawing.module.css';
import { DrawnEnd } from './DrawnEnd';
import type { BundleGroup } from './groups';
import { newId } from '../session/new-id';
import { useBundleEdits } from './useBundleEdits';

interface Props {
  /** The design that is drawn: as it is, or as it would be. */
  readonly design: Design;
  readonly solved: SolvedDesign;
  readonly group: BundleGroup;
  /** Whether values can be changed: not in a preview. */
  readonly fixed: boolean;
}

/** A bundle as it is cabled: two ends facing each other, the members between them with what each end makes of them. */
export function BundleDrawing({ design, solved, group, fixed }: Props) {
  const { near, far, verdict } = group;
  const host = verdict.partner?.kind === 'host' ? hostById(design, verdict.partner.id) : undefined;
  return (
    <div className={styles.drawing} role="group" aria-label="Drawing of the bundle">
      <div className={styles.end}>
        {near.map((b) => (
          <DrawnEnd key={b.id} {...{ design, solved, fixed }} bundle={b} other={far[0]} />
        ))}
      </div>
      <ul className={styles.members} aria-label="Members as they are cabled">
        {verdict.members.map((m) => (
          <Member key={m.port} {...{ design, group }} member={m} />
        ))}
        {verdict.members.length === 0 && <li className="quiet">No member yet.</li>}
      </ul>
      <div className={styles.end}>
        {far.map((b) => (
          <DrawnEnd key={b.id} {...{ design, solved, fixed }} bundle={b} other={near[0]} alike />
        ))}
        {far.length === 0 &&
          (host ? (
            <section className={styles.plate} aria-label="The other end">
              <h3>{host.name}</h3>
              <p className="quiet">a host</p>
            </section>
          ) : (
            <NotConfigured {...{ design, fixed }} bundle={near[0]!} />
          ))}
      </div>
    </div>
  );
}

/** The place of an end that is not configured: its ports stand alone, and what would be its bundle is offered. */
function NotConfigured({ design, bundle, fixed }: { design: Design; bundle: Bundle; fixed: boolean }) {
  const run = useBundleEdits();
  const at = switchById(design, bundle.switch)!.name;
  const made = faceBundle(design, bundle, newId);
  return (
    <section className={styles.plate} aria-label="The other end">
      <h3>not configured</h3>
      <p className="quiet">No bundle there leads back here: its ports stand alone.</p>
      {!fixed && (
        <button className="plain" onClick={() => run(`Configure the end that faces ${at} ${bundle.name}`, made)}>
          make a bundle of them
        </button>
      )}
    </section>
  );
}

const memberWords = (m: MemberVerdict): string => (m.miscabled ? `miscabled, ${m.state}` : m.state);

interface MemberProps {
  readonly design: Design;
  readonly group: BundleGroup;
  readonly member: MemberVerdict;
}

/** One member: a port at each end, and the cable between them as it carries, waits, or leads elsewhere. */
function Member({ design, group, member: m }: MemberProps) {
  const { near, farVerdict, far } = group;
  const port = portById(design, m.port);
  const link = linkAt(design, m.port);
  const end = link && farEnd(link, m.port);
  const farPort = end && 'port' in end ? portById(design, end.port) : undefined;
  const there = farPort && farVerdict?.members.find((o) => o.port === farPort.id);
  const isElsewhere = farPort !== undefined && !far.some((b) => b.switch === farPort.switch);
  const wrong = m.miscabled || m.state === 'suspended' || m.state === 'down';
  const rate = link ? speedLabel(linkSpeed(design, link)) : 'no cable';
  const named = (p: { name: string; switch: string } | undefined, several: boolean) =>
    p ? `${several ? `${switchById(design, p.switch)?.name} ` : 'port '}${p.name}` : '';
  const priority = (p: { lacpPriority?: number | undefined } | undefined, b: Bundle | undefined) =>
    p && b?.kind === 'lacp' ? String(p.lacpPriority ?? 32768) : '';
  const farName = farPort
    ? named(farPort, far.length !== 1 || isElsewhere)
    : end && 'host' in end
      ? (hostById(design, end.host)?.name ?? '')
      : 'nothing';
  return (
    <li className={`${styles.member} ${styles[m.state] ?? ''} ${wrong ? styles.wrong : ''}`}>
      <span className={styles.port} title={m.sentence}>
        <b>{named(port, near.length > 1)}</b>
        <small>{memberWords(m)}</small>
        <i className="mono">{priority(port, near[0])}</i>
      </span>
      <span className={styles.cable}>
        <span>{m.state === 'standby' ? `${rate}, waits` : rate}</span>
      </span>
      <span className={`${styles.port} ${isElsewhere ? styles.elsewhere : ''}`}>
        <b>{farName}</b>
        <small>{there ? memberWords(there) : isElsewhere ? 'another system' : ''}</small>
        <i className="mono">{priority(farPort, there && far[0])}</i>
      </span>
    </li>
  );
}
