'use client';
import { useLayoutEffect, useRef } from 'react';
import { useBench } from '../session/context';
import type { Command } from '../session/commands';

/** The keys of the review, for the failure that is picked: rehearse it, make a goal of it. */
export function useFailureCommands(rehearse: (() => void) | null, makeGoal: (() => void) | null): void {
  const { setStageCommands } = useBench();
  const latest = useRef({ rehearse, makeGoal });
  useLayoutEffect(() => {
    latest.current = { rehearse, makeGoal };
  });
  const [canRehearse, canMake] = [rehearse !== null, makeGoal !== null];
  useLayoutEffect(() => {
    const commands: Command[] = [
      ...(canRehearse
        ? [
            {
              id: 'rehearse-failure',
              title: 'Rehearse this failure',
              keys: ['Y'],
              run: () => latest.current.rehearse?.(),
            },
          ]
        : []),
      ...(canMake
        ? [
            {
              id: 'goal-of-failure',
              title: 'Make a goal of this failure',
              keys: ['A'],
              run: () => latest.current.makeGoal?.(),
            },
          ]
        : []),
    ];
    setStageCommands(commands);
    return () => setStageCommands([]);
  }, [canRehearse, canMake, setStageCommands]);
}
