'use client';
import type { Design } from '../../core/design';
import { HEARD_WORDS, fieldsOf, lasting, portWords } from '../../core/rehearsal';
import type { Trace } from '../../core/rehearsal';

const KIND = {
  config: 'classic configuration BPDU',
  notification: 'classic topology change notification',
  rst: 'rapid BPDU',
  mst: 'BPDU with instances',
  lacp: 'LACPDU',
  own: "PDU of a maker's own negotiation",
} as const;

/** One control frame field by field beside its octets, and what became of it. */
export function FramePanel({
  design,
  trace,
  index,
  onGo,
}: {
  design: Design;
  trace: Trace;
  index: number;
  onGo: (index: number) => void;
}) {
  const frame = trace.frames[index]!;
  const fields = fieldsOf(frame.octets);
  const octets = (at: number, width: number) =>
    [...frame.octets.subarray(at, at + width)].map((o) => o.toString(16).padStart(2, '0')).join(' ');
  return (
    <section aria-label="Frame">
      <h2>{portWords(design, frame.from)}</h2>
      <p className="mono quiet">
        {(frame.at / 1e6).toFixed(6)} s · {KIND[frame.kind]}
        {frame.vlan === null ? '' : ` · tree ${frame.vlan}`}
      </p>
      <p className="frame-steps">
        <button className="tool" disabled={index === 0} onClick={() => onGo(index - 1)}>
          earlier
        </button>
        <button className="tool" disabled={index >= trace.frames.length - 1} onClick={() => onGo(index + 1)}>
          later
        </button>
        <span className="quiet">
          frame {index + 1} of {trace.frames.length}
        </span>
      </p>
      <table className="rows frame-fields">
        <thead>
          <tr>
            <th scope="col">field</th>
            <th scope="col">value</th>
            <th scope="col">octets</th>
          </tr>
        </thead>
        <tbody>
          {fields.map((f) => (
            <tr key={`${f.at} ${f.name}`}>
              <th scope="row">{f.name}</th>
              <td className="mono">{breakable(f.value)}</td>
              <td className="mono quiet">{octets(f.at, f.width)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {frame.heard.length === 0 && <p className="sentence">Nobody took it in: it was lost, or had nowhere to go.</p>}
      {frame.heard.map((h) => (
        <p key={h.port} className="sentence">
          <b>{portWords(design, h.port)}</b>, {lasting(h.at - frame.at)} later: {HEARD_WORDS[h.info] ?? h.info}.
        </p>
      ))}
    </section>
  );
}

/** An identifier may be broken between its priority and its address. */
function breakable(value: string) {
  const dot = /^\w+\.(?=\w\w:)/.exec(value)?.[0];
  return dot ? (
    <>
      {dot}
      <wbr />
      {value.slice(dot.length)}
    </>
  ) : (
    value
  );
}
