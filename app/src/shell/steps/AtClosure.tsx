import { siteOf, type Cable } from '@cordel/core';
import type { ReactNode } from 'react';
import { cablesOf, useClosure, type ClosureAtHand } from '../../data/ledger';
import { Action } from '../../ui/Action';
import { Panes } from '../frame/Panes';
import { Screen } from '../frame/Screen';
import { Empty, Failed, Loading } from '../../ui/States';
import { router } from 'expo-router';
import { CordNav } from '../frame/CordNav';
import { places } from '../places';
import { usePrepare, type Preparing } from './usePrepare';

export interface AtHand extends ClosureAtHand {
  readonly projectId: string;
  readonly siteName: string;
  readonly cables: ReadonlyMap<string, Cable>;
  readonly preparing: Preparing;
}

interface AtClosureProps {
  projectId: string;
  closureId: string;
  title: string;
  children: (atHand: AtHand) => ReactNode;
}

/** Loads a closure with its ticks for a page of the preparation, with the cord beside it on a wide screen. */
export function AtClosure({ projectId, closureId, title, children }: AtClosureProps) {
  const { atHand, error, retry } = useClosure(projectId, closureId);
  if (!atHand)
    return (
      <Screen title={title} up={{ href: places.closure(projectId, closureId), name: 'the closure' }}>
        {error ? <Failed error={error} onRetry={retry} /> : <Loading what="the closure" />}
      </Screen>
    );
  return (
    <Prepared projectId={projectId} atHand={atHand}>
      {children}
    </Prepared>
  );
}

function Prepared({
  projectId,
  atHand,
  children,
}: {
  projectId: string;
  atHand: ClosureAtHand;
  children: AtClosureProps['children'];
}) {
  const { definition, closure, facts } = atHand;
  const preparing = usePrepare(projectId, closure.id, facts);
  const siteName = siteOf(definition.sites, closure.siteId).name;
  return children({ ...atHand, projectId, siteName, cables: cablesOf(definition), preparing });
}

/** The cord, the page, and a ledger beside it. */
export function PreparePanes({
  atHand,
  ledger,
  children,
}: {
  atHand: AtHand;
  ledger?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Panes
      cord={<CordNav definition={atHand.definition} closureId={atHand.closure.id} ledger={atHand.ledger} />}
      ledger={ledger}
    >
      {children}
    </Panes>
  );
}

/** The same for a page about one cable that comes into the closure. */
export function AtCable({
  cableId,
  children,
  ...at
}: Omit<AtClosureProps, 'children'> & {
  cableId: string;
  children: (atHand: AtHand, cable: Cable) => ReactNode;
}) {
  return (
    <AtClosure {...at}>
      {(atHand) => {
        const cable = atHand.cables.get(cableId);
        const enters = atHand.closure.entries.some((entry) => entry.cableId === cableId);
        return cable && enters ? (
          children(atHand, cable)
        ) : (
          <NoSuchCable projectId={at.projectId} closureId={at.closureId} />
        );
      }}
    </AtClosure>
  );
}

/** A page for a cable that does not come into the closure (any more). */
function NoSuchCable({ projectId, closureId }: { projectId: string; closureId: string }) {
  return (
    <Screen title="Prepare" up={{ href: places.prepare(projectId, closureId), name: 'preparing' }}>
      <Empty
        title="This cable does not come into the closure"
        text="It may have been taken out of the plan since this page was linked."
      >
        <Action
          label="To the cables that do"
          onPress={() => router.navigate(places.prepare(projectId, closureId))}
        />
      </Empty>
    </Screen>
  );
}
