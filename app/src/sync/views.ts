import { ClosureFacts } from './closureFacts';
import { closureIn, type Entry } from './read';

/** The closures that somebody looks at, or did since the page was loaded. */
export class Views {
  private readonly closures = new Map<string, ClosureFacts>();
  private readonly changes = new Map<string, number>();

  get(closureId: string): ClosureFacts | undefined {
    return this.closures.get(closureId);
  }

  open(projectId: string, closureId: string): ClosureFacts {
    const view = new ClosureFacts(projectId, closureId);
    this.closures.set(closureId, view);
    return view;
  }

  of(projectId: string): readonly ClosureFacts[] {
    return [...this.closures.values()].filter((view) => view.projectId === projectId);
  }

  all(): readonly ClosureFacts[] {
    return [...this.closures.values()];
  }

  /** Counts what became a fact of a project on the disk: whoever read the disk meanwhile has to look again. */
  changesOf(projectId: string): number {
    return this.changes.get(projectId) ?? 0;
  }

  noteChange(projectId: string): void {
    this.changes.set(projectId, this.changesOf(projectId) + 1);
  }

  /** Facts of a project, each into the closure that it is about. */
  add(projectId: string, facts: readonly unknown[]): void {
    for (const view of this.of(projectId)) view.add(facts.filter((raw) => closureIn(raw) === view.closureId));
  }

  /** Entries that count no more. */
  leaveOut(entries: readonly Entry[]): void {
    for (const view of this.all())
      view.leaveOut(
        new Set(entries.filter((entry) => closureIn(entry.raw) === view.closureId).map((entry) => entry.id)),
      );
  }
}
