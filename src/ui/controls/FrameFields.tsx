'use client';
import { fieldsOf } from '../../core/trace';
import styles from './FrameFields.module.css';

/** A control frame field by field, beside its octets. */
export function FrameFields({ octets }: { octets: Uint8Array }) {
  const hex = (from: number, width: number) =>
    [...octets.subarray(from, from + width)].map((o) => o.toString(16).padStart(2, '0')).join(' ');
  return (
    <table className={`rows ${styles.frameFields}`}>
      <thead>
        <tr>
          <th scope="col">field</th>
          <th scope="col">value</th>
          <th scope="col">octets</th>
        </tr>
      </thead>
      <tbody>
        {fieldsOf(octets).map((f) => (
          <tr key={`${f.at} ${f.name}`}>
            <th scope="row">{f.name}</th>
            <td className="mono">{f.value}</td>
            <td className="mono quiet">{hex(f.at, f.width)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
