import { router } from 'expo-router';
import { Screen } from '../../shell/frame/Screen';
import { Panes } from '../../shell/frame/Panes';
import { CordNav } from '../../shell/frame/CordNav';
import { handoverParts, places, type HandoverPart } from '../../shell/places';
import { Action } from '../../ui/Action';
import { Empty, Failed, Loading } from '../../ui/States';
import { useProject } from '../../data/projects';
import { CallsPart } from './CallsPart';
import { DocumentsPart } from './DocumentsPart';
import { ReadyPart } from './ReadyPart';
import { SignPart } from './SignPart';
import { useBooks } from './useBooks';
import type { ProjectDefinition } from '@cordel/core';

const titles: Readonly<Record<HandoverPart, string>> = {
  ready: 'Ready?',
  calls: 'Owner’s calls',
  documents: 'Documents',
  sign: 'Sign-off',
};

/** Handing over: what stands against acceptance, the owner's calls, the documents, and the sign-off. */
export function HandoverScreen({
  projectId,
  part,
  closure,
}: {
  projectId: string;
  part: string;
  closure?: string;
}) {
  const { data: definition, error, refetch } = useProject(projectId);
  const known = handoverParts.find((one) => one === part);
  const up =
    known === 'ready' || !known
      ? { href: places.losses(projectId), name: 'the losses' }
      : { href: places.handover(projectId, 'ready', closure), name: 'what stands against it' };
  const title = known ? titles[known] : 'Hand over';
  if (!definition)
    return (
      <Screen title={title} up={up}>
        {error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the project" />}
      </Screen>
    );
  return (
    <Panes cord={<CordNav definition={definition} tab="losses" />}>
      <Screen title={title} subtitle={definition.project.name} up={up}>
        {known ? (
          <AtBooks definition={definition} part={known} closureId={closure} />
        ) : (
          <Empty title="There is no such page" text="Handing over begins with what stands against it.">
            <Action
              label="To what stands against it"
              onPress={() => router.navigate(places.handover(projectId))}
            />
          </Empty>
        )}
      </Screen>
    </Panes>
  );
}

function AtBooks({
  definition,
  part,
  closureId,
}: {
  definition: ProjectDefinition;
  part: HandoverPart;
  closureId: string | undefined;
}) {
  const { books, error, retry } = useBooks(definition);
  if (!books) return error ? <Failed error={error} onRetry={retry} /> : <Loading what="the records" />;
  // One that is gone, or was linked wrongly, leads to all.
  const chosen = books.some(({ closure }) => closure.id === closureId) ? closureId : undefined;
  const given = { definition, books, closureId: chosen };
  switch (part) {
    case 'ready':
      return <ReadyPart {...given} />;
    case 'calls':
      return <CallsPart {...given} />;
    case 'documents':
      return <DocumentsPart {...given} />;
    case 'sign':
      return <SignPart {...given} />;
  }
}
