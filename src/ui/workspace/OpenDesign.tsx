'use client';
import { useEffect, useState } from 'react';
import { api } from '../session/api';
import type { DesignHead, LoadedVariant } from '../../api/contract';
import { Mark } from '../controls/Mark';
import type { StageId } from '../session/stages';
import { useInBrowser } from '../session/useInBrowser';
import { readView } from '../session/view';
import { Trouble } from '../controls/Trouble';
import { fetchStage, StageAhead } from './stages-ahead';
import { Workbench } from './Workbench';

interface Props {
  head: DesignHead;
  variantId: string;
  /** The variant as JSON; null when it is fetched. */
  variantText: string | null;
  stage: StageId;
  query: string;
}

/** Stages that the server draws. */
const PICTURED: ReadonlySet<StageId> = new Set(['trees', 'cabling']);
/** In bytes: a picture of a larger design would keep the server, and the reader, longer than it helps. */
const LARGEST_PICTURED = 60_000;

const isPictured = ({ stage, variantText }: Props): boolean =>
  PICTURED.has(stage) && variantText !== null && variantText.length <= LARGEST_PICTURED;

/** Opens a design in the browser. Of a small one the server sends a picture of the page, which stands until then. */
export function OpenDesign(props: Props) {
  const { head, variantId, variantText, stage, query } = props;
  const [variant, setVariant] = useState<LoadedVariant | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const inBrowser = useInBrowser();
  // Whether this page came from the server: as it is taken over, and as long as it stands.
  const [fromServer] = useState(!inBrowser);
  useEffect(() => {
    let gone = false;
    const loaded = variantText === null ? api.variant(variantId) : (JSON.parse(variantText) as LoadedVariant);
    // A stage whose script cannot be had says so itself.
    Promise.all([
      loaded,
      fetchStage(stage, readView(new URLSearchParams(query)).selection.length > 0).catch(() => undefined),
    ]).then(
      ([found]) => gone || setVariant(found),
      (error: Error) => gone || setFault(error.message),
    );
    return () => {
      gone = true;
    };
    // The stage changes without a new page once the design is open.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [variantId, variantText]);
  if (variant) return <Workbench head={head} variant={variant} stage={stage} query={query} />;
  if (fault !== null) return <Trouble title="This design cannot be opened" sentence={fault} />;
  if (!fromServer || !isPictured(props)) return <Opening {...props} />;
  return (
    <>
      <p className="visually-hidden" role="status">
        Opening…
      </p>
      <Picture {...props} />
      <StageAhead stage={stage} />
    </>
  );
}

function Opening({ head, stage }: Props) {
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

/**
 * The page as the server draws it: to be looked at, until the script is there that makes it work. The browser leaves what
 * it finds in it as it is: taking it over piece by piece would take as long as making it.
 */
function Picture({ head, variantText, stage, query }: Props) {
  const frame = { className: 'opening', inert: true, 'aria-hidden': true, 'aria-busy': true } as const;
  if (typeof window !== 'undefined')
    return <div {...frame} dangerouslySetInnerHTML={{ __html: '' }} suppressHydrationWarning />;
  const variant = JSON.parse(variantText!) as LoadedVariant;
  return (
    <div {...frame}>
      <Workbench {...{ head, variant, stage, query }} />
    </div>
  );
}
