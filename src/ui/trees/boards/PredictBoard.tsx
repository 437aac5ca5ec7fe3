'use client';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import { NO_ANSWERS, checkPrediction, explainPort, explainSwitch, explainTree, sheetLinks } from '../../../core/trees';
import type {
  EndAnswer,
  Ledger as LedgerValue,
  Marks,
  Prediction,
  SolvedDesign,
  SolvedTree,
} from '../../../core/trees';
import { useSession, useTree } from '../../session/context';
import { Ledger } from '../panels/Ledger';
import { treeTitle } from '../../controls/tree-names';
import { isPractice } from '../../../demo/practice';
import { AnswerSheet } from './AnswerSheet';
import { FactDrawing } from './FactDrawing';
import { PracticeBar, usePracticeScore } from './PracticeBar';
import { Term } from '../../controls/Term';
import { portsOfBridge } from '../../../core/network';
import styles from './PredictBoard.module.css';

const ENDS: readonly { id: EndAnswer; words: string }[] = [
  { id: 'root', words: 'root port' },
  { id: 'designated', words: 'designated' },
  { id: 'blocked', words: 'blocked' },
];

/** A tree worked out by hand: nothing is shown but what is given, and each answer is checked. */
export function PredictBoard() {
  const solved = useSession((s) => s.solved);
  const of = useTree();
  const [sheets, setSheets] = useState<Readonly<Record<string, Prediction>>>({});
  const [checked, setChecked] = useState<{ tree: string; marks: Marks; of: SolvedTree } | null>(null);
  const [blank, setBlank] = useState<'alone' | 'and answers' | null>(null);
  const practice = usePracticeScore();
  const exercise = useSession((s) => isPractice(s.design));
  if (!of) return <p className="board-lead quiet">The design has no VLAN, so no tree runs on it.</p>;
  const answers = sheets[of.tree.id] ?? NO_ANSWERS;
  const marks = checked?.tree === of.tree.id && checked.of === of ? checked.marks : null;
  const answer = (change: Partial<Prediction>) => {
    setSheets((was) => ({ ...was, [of.tree.id]: { ...(was[of.tree.id] ?? NO_ANSWERS), ...change } }));
    setChecked(null);
  };
  const check = () => {
    const found = checkPrediction(solved, of, answers);
    setChecked({ tree: of.tree.id, marks: found, of });
    if (exercise) practice.mark(found);
  };
  const print = (withAnswers: boolean) => {
    setBlank(withAnswers ? 'and answers' : 'alone');
    // The sheet is drawn blank before the dialog of the browser opens.
    setTimeout(() => {
      window.print();
      setBlank(null);
    }, 50);
  };
  return (
    <div className={`board predict${blank ? ` ${styles.isBlank}` : ''}`}>
      {exercise && (
        <PracticeBar
          score={practice.score}
          onClear={practice.clear}
          onNext={() => {
            setSheets({});
            setChecked(null);
          }}
        />
      )}
      <Head of={of} marks={marks} onClear={() => answer(NO_ANSWERS)} onPrint={print} onCheck={check} />
      <div className="board-scroll">
        <FactDrawing solved={solved} of={of} />
        <Sheet solved={solved} of={of} answers={answers} marks={marks} onAnswer={answer} />
        {blank === 'and answers' && <AnswerSheet solved={solved} of={of} />}
      </div>
    </div>
  );
}

interface HeadProps {
  readonly of: SolvedTree;
  readonly marks: Marks | null;
  readonly onClear: () => void;
  readonly onPrint: (withAnswers: boolean) => void;
  readonly onCheck: () => void;
}

function Head({ of, marks, onClear, onPrint, onCheck }: HeadProps) {
  return (
    <div className={styles.predictHead}>
      <h2>{treeTitle(of.tree)}: work it out</h2>
      <span className="grow" />
      {marks && (
        <span role="status">
          <b>{marks.right.size} right</b>
          {marks.wrong.size > 0 && <b className="alarm"> {marks.wrong.size} wrong</b>}
          {marks.open > 0 && <span className="quiet"> {marks.open} left open</span>}
        </span>
      )}
      <Button onClick={onClear}>Clear</Button>
      <Button onClick={() => onPrint(false)}>Print it blank</Button>
      <Button onClick={() => onPrint(true)}>Print with answers</Button>
      <Button variant="contained" onClick={onCheck}>
        Check
      </Button>
    </div>
  );
}

interface SheetProps {
  solved: SolvedDesign;
  of: SolvedTree;
  answers: Prediction;
  marks: Marks | null;
  onAnswer: (change: Partial<Prediction>) => void;
}

interface Mark {
  readonly sign: ReactNode;
  readonly more: ReactNode;
}

/** Whether an answer is right, and on asking why it is not. */
type Marking = (key: string, ledger: () => LedgerValue) => Mark;

function Sheet({ solved, of, answers, marks, onAnswer }: SheetProps) {
  const [why, setWhy] = useState<string | null>(null);
  const { design } = solved.topology;
  const taking = [...design.switches.keys()].filter((b) => of.problem.bridgeTakesPart[b]);
  const mark = (key: string, ledger: () => LedgerValue): Mark => {
    if (marks?.right.has(key)) return { sign: <span aria-label="right">✓</span>, more: null };
    if (!marks?.wrong.has(key)) return { sign: null, more: null };
    return {
      sign: (
        <button className="plain alarm" aria-label="Wrong: why" onClick={() => setWhy(why === key ? null : key)}>
          ✗ why
        </button>
      ),
      more: why === key ? <Ledger ledger={ledger()} /> : null,
    };
  };
  const root = mark('root', () => explainTree(solved, of));
  return (
    <>
      <p className={styles.sheetLine}>
        <label>
          root{' '}
          <select value={answers.root ?? ''} aria-label="Root" onChange={(e) => onAnswer({ root: e.target.value })}>
            <option value="" />
            {taking.map((b) => (
              <option key={b} value={design.switches[b]!.id}>
                {design.switches[b]!.name}
              </option>
            ))}
          </select>
        </label>{' '}
        {root.sign}
      </p>
      {root.more}
      <SwitchAnswers solved={solved} of={of} answers={answers} onAnswer={onAnswer} mark={mark} />
      <EndAnswers solved={solved} of={of} answers={answers} onAnswer={onAnswer} mark={mark} />
    </>
  );
}

type AnswersProps = Omit<SheetProps, 'marks'> & { readonly mark: Marking };

function SwitchAnswers(props: AnswersProps) {
  const { solved, of } = props;
  const { design } = solved.topology;
  const taking = [...design.switches.keys()].filter((b) => of.problem.bridgeTakesPart[b]);
  return (
    <table className="rows sheet">
      <caption>Switches</caption>
      <thead>
        <tr>
          <th scope="col">switch</th>
          <th scope="col">
            <Term id="rootPathCost">root path cost</Term>
          </th>
          <th scope="col">
            <Term id="rootPort">root port</Term>
          </th>
          <td />
        </tr>
      </thead>
      <tbody>
        {taking.map((b) => (
          <SwitchRow key={b} bridge={b} {...props} />
        ))}
      </tbody>
    </table>
  );
}

function SwitchRow({ bridge, solved, of, answers, onAnswer, mark }: AnswersProps & { bridge: number }) {
  const { design, ports } = solved.topology;
  const links = useMemo(() => sheetLinks(of), [of]);
  const { id, name } = design.switches[bridge]!;
  const own = [...portsOfBridge(solved.topology, bridge)].filter((p) => links.some((l) => l.a === p || l.b === p));
  const cost = mark(`cost ${id}`, () => explainSwitch(solved, of, bridge));
  const port = mark(`port ${id}`, () => explainSwitch(solved, of, bridge));
  return (
    <tr>
      <th scope="row">{name}</th>
      <td>
        <input
          className="mono"
          inputMode="numeric"
          value={answers.costs[id] ?? ''}
          aria-label={`Root path cost of ${name}`}
          onChange={(e) => onAnswer({ costs: { ...answers.costs, [id]: e.target.value } })}
        />{' '}
        {cost.sign}
      </td>
      <td>
        <select
          value={answers.rootPorts[id] ?? ''}
          aria-label={`Root port of ${name}`}
          onChange={(e) => onAnswer({ rootPorts: { ...answers.rootPorts, [id]: e.target.value } })}
        >
          <option value="" />
          {own.map((p) => (
            <option key={p} value={ports[p]!.element.id}>
              {ports[p]!.element.name}
            </option>
          ))}
        </select>{' '}
        {port.sign}
      </td>
      <td>{cost.more ?? port.more}</td>
    </tr>
  );
}

function EndAnswers({ solved, of, answers, onAnswer, mark }: AnswersProps) {
  const { design, ports, portBridge } = solved.topology;
  const links = useMemo(() => sheetLinks(of), [of]);
  return (
    <table className="rows sheet">
      <caption>Ends of links</caption>
      <tbody>
        {links.map(({ a, b }) => (
          <tr key={`${a} ${b}`}>
            {[a, b].map((p) => {
              const { id, name } = ports[p]!.element;
              const owner = design.switches[portBridge[p]!]!.name;
              const end = mark(`end ${id}`, () => explainPort(solved, of, p));
              return (
                <td key={p}>
                  <label>
                    {owner} {name}{' '}
                    <select
                      value={answers.ends[id] ?? ''}
                      aria-label={`Role of ${owner} ${name}`}
                      onChange={(e) => onAnswer({ ends: { ...answers.ends, [id]: e.target.value as EndAnswer } })}
                    >
                      <option value="" />
                      {ENDS.map((o) => (
                        <option key={o.id} value={o.id}>
                          {o.words}
                        </option>
                      ))}
                    </select>
                  </label>{' '}
                  {end.sign}
                  {end.more}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
