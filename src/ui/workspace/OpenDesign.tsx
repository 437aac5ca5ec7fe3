'use client';
import { useEffect, useState } from 'react';
import { api } from '../session/api';
import type { DesignHead, LoadedVariant } from '../../api/contract';
import { Mark } from '../controls/Mark';
import type { StageId } from '../session/stages';
import { Trouble } from '../controls/Trouble';
import { StageAhead } from './stages-ahead';
import { Workbench } from './Workbench';

interface Props {
  head: DesignHead;
  variantId: string;
  /** The variant as JSON, read here so that the server need not take designs apart; null when it is fetched. */
  variantText: string | null;
  stage: StageId;
  query: string;
}

/** Opens a design in the browser; the server sends the text only. */
export function OpenDesign({ head, variantId, variantText, stage, query }: Props) {
  const [variant, setVariant] = useState<LoadedVariant | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    if (variantText !== null) return setVariant(JSON.parse(variantText) as LoadedVariant);
    let gone = false;
    api.variant(variantId).then(
      (loaded) => gone || setVariant(loaded),
      (error: Error) => gone || setFault(error.message),
    );
    return () => {
      gone = true;
    };
  }, [variantId, variantText]);
  if (variant) return <Workbench head={head} variant={variant} stage={stage} query={query} />;
  if (fault !== null) return <Trouble title="This design cannot be opened" sentence={fault} />;
  return (
    <div className="bench" aria-busy="true">
      <header className="head">
        <span className="brand">
          <Mark /> Knot Path
        </span>
        <h1 className="title">{head.name}</h1>
      </header>
      <p className="quiet pad" role="status">
        Opening…
      </p>
      <StageAhead stage={stage} />
    </div>
  );
}
