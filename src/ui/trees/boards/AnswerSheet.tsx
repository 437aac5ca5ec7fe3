'use client';
import { grouped } from '../../../core/standard';
import { endAnswer, rootsOf, sheetLinks } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { treeTitle } from '../../controls/tree-names';
import styles from './AnswerSheet.module.css';

/** The answers of a sheet, on a page of their own when it is printed. */
export function AnswerSheet({ solved, of }: { solved: SolvedDesign; of: SolvedTree }) {
  const { design, ports, portBridge } = solved.topology;
  const root = rootsOf(of)[0];
  const name = (b: number) => design.switches[b]!.name;
  const followers = [...design.switches.keys()].filter((b) => of.outcome.root[b]! >= 0 && b !== root);
  const end = (p: number) => `${name(portBridge[p]!)} ${ports[p]!.element.name}: ${endAnswer(of, p)}`;
  return (
    <section className={styles.answers} aria-label="Answers">
      <h2>{treeTitle(of.tree)}: answers</h2>
      <p>Root: {root === undefined ? 'none' : name(root)}</p>
      <table className="rows sheet">
        <thead>
          <tr>
            <th scope="col">switch</th>
            <th scope="col">root path cost</th>
            <th scope="col">root port</th>
          </tr>
        </thead>
        <tbody>
          {followers.map((b) => (
            <tr key={b}>
              <th scope="row">{name(b)}</th>
              <td className="mono">{grouped(of.outcome.rootPathCost[b]!)}</td>
              <td>{ports[of.outcome.rootPort[b]!]?.element.name}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="rows sheet">
        <tbody>
          {sheetLinks(of).map(({ a, b }) => (
            <tr key={`${a} ${b}`}>
              <td>{end(a)}</td>
              <td>{end(b)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
