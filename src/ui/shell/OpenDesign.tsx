'use client';
import { useMemo } from 'react';
import type { DesignHead, LoadedVariant } from '../session/types';
import { Mark } from './Mark';
import type { StageId } from './stages';
import { useInBrowser } from './useInBrowser';
import { Workbench } from './Workbench';

interface Props {
  head: DesignHead;
  /** The variant as JSON: it is read here, so that the server need not take large designs apart. */
  variantText: string;
  stage: StageId;
  query: string;
}

/** Opens a design in the browser; the server sends the text only. */
export function OpenDesign({ head, variantText, stage, query }: Props) {
  const inBrowser = useInBrowser();
  const variant = useMemo(
    () => (inBrowser ? (JSON.parse(variantText) as LoadedVariant) : null),
    [inBrowser, variantText],
  );
  if (variant) return <Workbench head={head} variant={variant} stage={stage} query={query} />;
  return (
    <div className="bench" aria-busy="true">
      <header className="head">
        <span className="brand">
          <Mark /> Knot Path
        </span>
        <h1 className="title">{head.name}</h1>
      </header>
    </div>
  );
}
