'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { linkById } from '../../core/design';
import { goalSentence } from '../../core/goals';
import { failureScript, goalOfFailure } from '../../core/review';
import type { Failure } from '../../core/review';
import { grouped } from '../../core/standard';
import { NameDialog } from '../controls/NameDialog';
import { useBench, useSession } from '../session/context';
import { newId } from '../session/new-id';
import { useFailureCommands } from './useFailureCommands';
import { failureWords } from './words';

/** Asks for pairs as well, and says first how many there are and how long they take, by some that were tried. */
export function Pairs() {
  const { review, pairs, setPairs } = useBench();
  if (pairs) return <Button onClick={() => setPairs(false)}>Single failures only</Button>;
  const { swept, pace } = review;
  if (pace === null || swept < 2) return null;
  const many = (swept * (swept - 1)) / 2;
  const seconds = (pace * many) / 1000;
  const time = seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${grouped(Math.round(seconds / 60))} min`;
  return (
    <Button onClick={() => setPairs(true)}>
      Sweep {grouped(many)} pairs too, about {time}
    </Button>
  );
}

/** What is selected, named as what fails together. */
function RiskGroup() {
  const { edit, view } = useBench();
  const design = useSession((s) => s.design);
  const [naming, setNaming] = useState(false);
  const links = view.selection.flatMap((r) => (r.kind === 'link' && linkById(design, r.id) ? [r.id] : []));
  const switches = view.selection.flatMap((r) => (r.kind === 'switch' ? [r.id] : []));
  const addGroup = (name: string) => {
    const made = edit(`Risk group ${name}`, [
      { type: 'add', kind: 'risk', value: { id: newId('risk'), name, links, switches } },
    ]);
    return made
      ? Promise.resolve()
      : Promise.reject(new Error('The design does not take it: a name has 1 to 64 characters.'));
  };
  return (
    <>
      <Button
        disabled={links.length + switches.length === 0}
        title="Select links and switches on the chart that one cause takes out together: a duct, a rack, a power feed"
        onClick={() => setNaming(true)}
      >
        Risk group of the selection…
      </Button>
      {naming && (
        <NameDialog
          title="What fails together"
          label="Name of the risk group"
          initial="duct"
          action="Add"
          onSubmit={addGroup}
          onClose={() => setNaming(false)}
        />
      )}
    </>
  );
}

/** What can be done with a failure: rehearsed, made a goal. */
export function Tools({ failure }: { failure: Failure | null }) {
  const { edit, go, say } = useBench();
  const design = useSession((s) => s.design);
  const rehearse = () => {
    const name = `${failureWords(design, failure!)} lost`.slice(0, 60);
    const script = { ...failureScript(design, failure!.elements, name), id: newId('script') };
    if (edit(`Script ${name}`, [{ type: 'add', kind: 'script', value: script, at: 0 }])) go('rehearsal');
  };
  const goal = failure && goalOfFailure(design, failure, newId('goal'));
  const wants = () => {
    if (goal && edit(`Goal: ${goalSentence(design, goal)}`, [{ type: 'add', kind: 'goal', value: goal }]))
      say({ text: `Goal set: ${goalSentence(design, goal)}` });
  };
  useFailureCommands(failure ? rehearse : null, goal ? wants : null);
  const [risk] = failure?.elements.filter((e) => e.kind === 'group') ?? [];
  return (
    <>
      {failure && (
        <Button title="Y" onClick={rehearse}>
          Rehearse it
        </Button>
      )}
      {goal && (
        <Button title={`A: ${goalSentence(design, goal)}`} onClick={wants}>
          Make a goal of it
        </Button>
      )}
      {risk && (
        <Button onClick={() => edit('Remove a risk group', [{ type: 'remove', kind: 'risk', id: risk.id }])}>
          Remove the risk group
        </Button>
      )}
      <RiskGroup />
    </>
  );
}
