'use client';
import { useMemo } from 'react';
import { useBench } from '../session/context';
import { rowMarks } from './row-marks';
import type { RowMark } from './row-marks';

const NONE: ReadonlyMap<string, RowMark> = new Map();

/** What the review finds, by what it is about. */
export function useRowMarks(): ReadonlyMap<string, RowMark> {
  const { review } = useBench();
  const { findings, design } = review;
  return useMemo(() => (design && findings ? rowMarks(design, findings) : NONE), [findings, design]);
}
