import {
  isGearFact,
  knownFact,
  lossSheet,
  siteOf,
  spreadsheetFormula,
  writeProjectFile,
  type ProjectDefinition,
} from '@cordel/core';
import { queryClient } from '../data/client';
import { knownBook } from '../data/gear';
import { engine } from '../sync/here';
import { csvText } from './csv';

/** A document made on this device. */
export interface MadeHere {
  readonly text: string;
  readonly name: string;
  readonly type: string;
}

/**
 * The loss sheet, of all closures or one, from what is on this device: as the server makes it, and with what the server does not have yet. null where no whole state of the project is
 * here.
 */
export async function lossSheetHere(
  definition: ProjectDefinition,
  closureId?: string,
): Promise<MadeHere | null> {
  const facts = await engine().pull.allFacts(definition.project.id);
  if (!facts) return null;
  const chosen = definition.closures.filter((one) => closureId === undefined || one.id === closureId);
  const sheet = lossSheet(
    definition,
    facts.flatMap((fact) => knownFact(fact) ?? []),
    chosen.map((one) => one.id),
    knownBook(queryClient).facts.filter(isGearFact),
  );
  const rows = [[...sheet.header], ...sheet.rows.map((row) => [...row])];
  const name = closureId ? siteOf(definition.sites, chosen[0]!.siteId).name : definition.project.name;
  return {
    text: await csvText(rows, spreadsheetFormula),
    name: `${name} losses.csv`,
    type: 'text/csv',
  };
}

/** The project as one document, with what no server has yet. When the server took a fact is not known here: the time at which it was made stands in its place. */
export async function projectHere(definition: ProjectDefinition): Promise<MadeHere | null> {
  const facts = await engine().pull.allFacts(definition.project.id);
  return (
    facts && {
      text: writeProjectFile(
        definition,
        facts.map((fact) => ({ receivedAt: fact.madeAt, fact })),
        engine()
          .edits.of(definition.project.id)
          .map(({ kind, documentId, base, mine }) => ({ kind, documentId, base, mine })),
      ),
      name: `${definition.project.name}.json`,
      type: 'application/json',
    }
  );
}
