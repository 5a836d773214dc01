import type { ClosureFacts } from './closureFacts';
import type { Edits } from './edits';
import { Listeners } from './listeners';
import type { Log } from './log';
import { closureIn } from './read';
import { NotKept, type Along, type AnyFact, type NumberedFact, type Reach, type Store } from './store';
import type { FactPage, Surroundings } from './surroundings';
import type { Views } from './views';

interface ProjectHere {
  /** Everything up to this number of the server's is here, as far as this tab knows. */
  cursor: number;
  /** When it was read last, ms since 1970. */
  readAt: number;
  watchers: number;
  timer: ReturnType<typeof setInterval> | undefined;
  /** The disk takes nothing: what is shown of it came from the server, and goes with this page. */
  unkept: boolean;
  /** That what this tab read of it is of. */
  numbering: string | undefined;
  /** Closures of it that are being read from the disk. */
  readonly loading: Set<Promise<void>>;
  pulling: Promise<void> | null;
  error: Error | null;
  readonly listeners: Listeners;
}

/** How long what was read may say that it is of an earlier moment than it is. ms */
const freshness = 60_000;
/** How often a project that is looked at is read, and how long it need not be read again after that. ms */
const everySoOften = 15_000;
const justRead = 5000;

/** Reads what the server has of the projects, keeps it on the disk, and shows it where somebody looks at it. */
export class Pull {
  private store!: Store;
  private reached: ReadonlyMap<string, Reach> = new Map();
  private readonly projects = new Map<string, ProjectHere>();
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;
  /** What of which project is here is known. */
  readonly ready: Promise<void>;

  constructor(
    private readonly around: Surroundings,
    private readonly log: Log,
    private readonly edits: Edits,
    private readonly views: Views,
    /** Something that the server had is to be sent once more. */
    private readonly onLost: () => void,
  ) {
    this.ready = this.begin();
  }

  private async begin(): Promise<void> {
    await this.log.ready;
    ({ store: this.store } = await this.around.disk);
    // Where the disk cannot be read, whoever records something is told.
    await this.lookAround().catch(() => undefined);
  }

  /** What of which project is on this device. */
  readonly reaches = (): ReadonlyMap<string, Reach> => this.reached;

  /** See `Engine.closure`. */
  closure(projectId: string, closureId: string): ClosureFacts {
    const known = this.views.get(closureId);
    if (known) return known;
    const view = this.views.open(projectId, closureId);
    const project = this.project(projectId);
    const load = this.load(view).finally(() => project.loading.delete(load));
    project.loading.add(load);
    if (project.unkept) void load.then(() => this.run(projectId));
    return view;
  }

  /** Everything that happened in a project as far as it is known here, what is on its way too; null where no whole state of it is here. */
  async allFacts(projectId: string): Promise<readonly AnyFact[] | null> {
    await this.ready;
    const { whole } = await this.store.reach(projectId);
    if (!whole) return null;
    const read = (await this.store.allFacts(projectId)) as readonly AnyFact[];
    const ids = new Set(read.map((fact) => fact.id));
    const own = this.log.waiting().filter((entry) => entry.projectId === projectId && !ids.has(entry.id));
    return [...read, ...own.flatMap((entry) => entry.fact ?? [])];
  }

  /** Everything of a project was brought here since `began`. */
  async noteAlong(projectId: string, began: number): Promise<Along> {
    await this.ready;
    const size = await this.store.sizeOf(projectId);
    const along = { ...size, at: this.around.now(), ms: this.around.now() - began };
    await this.store.noteAlong(projectId, along);
    await this.lookAround();
    return along;
  }

  /** A project is made on this device: nothing happened in it anywhere else. */
  async bear(projectId: string): Promise<void> {
    await this.ready;
    await this.store.takePage(projectId, [], { cursor: 0, whole: true, at: this.around.now() });
    await this.lookAround();
    for (const view of this.views.of(projectId)) await this.load(view);
  }

  /** Takes a project from this device. false, and nothing is done, while something recorded in it is not on the server. */
  async forget(projectId: string): Promise<boolean> {
    await this.ready;
    await this.log.refresh();
    await this.edits.refresh();
    const waits = this.log.entries().some((entry) => entry.projectId === projectId);
    if (waits || this.edits.all().some((edit) => edit.scope === projectId)) return false;
    await this.store.forget(projectId);
    this.project(projectId).cursor = 0;
    this.views.noteChange(projectId);
    for (const view of this.views.of(projectId)) view.end();
    await this.lookAround();
    return true;
  }

  /** Why a project could not be read the last time; null where it was. */
  readonly errorOf = (projectId: string): Error | null => this.project(projectId).error;

  subscribeProject(projectId: string, listener: () => void): () => void {
    return this.project(projectId).listeners.subscribe(listener);
  }

  /** Everything of a project up to this number of the server's is here. */
  cursorOf(projectId: string): number {
    return this.project(projectId).cursor;
  }

  noteCursor(projectId: string, cursor: number): void {
    this.project(projectId).cursor = cursor;
  }

  /** Reads a project now and then as long as somebody looks at it. Returns what ends that. */
  watch(projectId: string): () => void {
    const project = this.project(projectId);
    project.watchers += 1;
    if (project.watchers === 1) {
      if (this.around.now() - project.readAt > justRead || project.error) void this.run(projectId);
      project.timer = setInterval(() => void this.run(projectId), everySoOften);
    }
    return () => {
      project.watchers -= 1;
      if (project.watchers === 0) clearInterval(project.timer);
    };
  }

  /** Reads what the server has of a project beyond what is here. Never rejects: see `errorOf`. */
  run(projectId: string): Promise<void> {
    const project = this.project(projectId);
    if (this.edits.unborn(projectId)) return Promise.resolve();
    project.pulling ??= this.read(projectId, project)
      .then(
        () => null,
        async (error: unknown) => {
          // Told where nothing is shown; what is on the disk may be on its way.
          await Promise.all(project.loading);
          return error as Error;
        },
      )
      .then((error) => {
        project.pulling = null;
        project.readAt = this.around.now();
        if (error === null && project.error === null) return;
        this.tellError(project, error);
      });
    return project.pulling;
  }

  /** Another tab read more of a project. */
  async reread(projectId: string): Promise<void> {
    this.views.noteChange(projectId);
    const { numbering } = await this.store.reach(projectId);
    const project = this.project(projectId);
    // Under other numbers nothing that was read says what is missing.
    if (project.numbering !== numbering) this.views.of(projectId).forEach((view) => (view.seq = 0));
    project.numbering = numbering;
    for (const view of this.views.of(projectId)) {
      if (view.known) view.add(await this.unread(view));
      else await this.load(view);
    }
  }

  /** The disk is empty: everything that is looked at is read anew. */
  async readAnew(): Promise<void> {
    this.views.all().forEach((view) => (view.seq = 0));
    await Promise.all([...this.projects.keys()].map((projectId) => this.run(projectId)));
  }

  stop(): void {
    this.projects.forEach(({ timer }) => clearInterval(timer));
  }

  private project(projectId: string): ProjectHere {
    let project = this.projects.get(projectId);
    if (!project) {
      project = {
        cursor: 0,
        readAt: 0,
        watchers: 0,
        timer: undefined,
        unkept: false,
        numbering: undefined,
        loading: new Set(),
        pulling: null,
        error: null,
        listeners: new Listeners(),
      };
      this.projects.set(projectId, project);
    }
    return project;
  }

  private tellError(project: ProjectHere, error: Error | null): void {
    project.error = error;
    project.listeners.tell();
  }

  private async lookAround(): Promise<void> {
    this.reached = new Map((await this.store.reaches()).map((reach) => [reach.projectId, reach]));
    this.listeners.tell();
  }

  // ---- from the disk

  /** Shows a closure's facts as soon as a whole state of its project is here. */
  private load(view: ClosureFacts): Promise<void> {
    // One after the other: each reads on from where the one before ended.
    return (view.reading = view.reading.then(() => this.loadNow(view)));
  }

  private async loadNow(view: ClosureFacts): Promise<void> {
    const { projectId, closureId } = view;
    try {
      await this.ready;
      const { whole } = await this.store.reach(projectId);
      if (!whole || view.known) return;
      let changes;
      const read: unknown[] = [];
      do {
        changes = this.views.changesOf(projectId);
        read.push(...(await this.unread(view)));
      } while (changes !== this.views.changesOf(projectId));
      this.around.together(() => {
        view.begin();
        view.add([...read, ...this.log.waitingAt(closureId)]);
      });
    } catch (error) {
      this.tellError(this.project(projectId), error as Error);
    }
  }

  /** The facts on the disk that the view has not read yet. */
  private async unread(view: ClosureFacts): Promise<readonly unknown[]> {
    const { cursor } = await this.store.reach(view.projectId);
    const facts = await this.store.factsOf(view.projectId, view.closureId, view.seq);
    // Beyond the cursor there are own ones with gaps before them, which others will fill.
    view.seq = Math.max(view.seq, cursor);
    return facts.map((fact) => fact.raw);
  }

  // ---- from the server

  private async read(projectId: string, project: ProjectHere): Promise<void> {
    await this.ready;
    try {
      await this.readPages(projectId, project);
      project.unkept = false;
    } catch (error) {
      if (!(error instanceof NotKept)) throw error;
      project.unkept = true;
      await this.readUnkept(projectId, project);
    }
  }

  private async readPages(projectId: string, project: ProjectHere): Promise<void> {
    const { server, now } = this.around;
    const { whole, at, numbering, ...before } = await this.store.reach(projectId);
    project.numbering = numbering;
    let { cursor } = before;
    for (let more = true; more;) {
      const page = await server.page(projectId, cursor);
      if (otherNumbers(page, numbering, cursor)) return this.readRenumbered(projectId, project);
      const first = page.last - page.facts.length + 1;
      const facts = page.facts.map((raw, index) => ({ seq: first + index, raw }));
      ({ more } = page);
      cursor = page.last;
      const fresh = now();
      const unnumbered = page.numbering !== undefined && numbering === undefined;
      if (facts.length > 0 || (!more && (!whole || unnumbered || fresh - at > freshness))) {
        await this.store.takePage(projectId, facts, {
          cursor,
          whole: !more,
          at: more ? 0 : fresh,
          numbering: page.numbering,
        });
        this.views.noteChange(projectId);
        this.show(projectId, page.facts);
        this.around.tell({ project: projectId });
        if (!more) await this.lookAround();
      }
      project.cursor = Math.max(project.cursor, cursor);
    }
    for (const view of this.views.of(projectId)) if (!view.known) await this.load(view);
  }

  /**
   * The server's database is another one than before, an older copy that was restored, or it took the project in anew: all of it is read, and what it lost goes to
   * it once more.
   */
  private async readRenumbered(projectId: string, project: ProjectHere): Promise<void> {
    const { server, now } = this.around;
    const facts: NumberedFact[] = [];
    let last = 0;
    let numbering: string | undefined;
    for (let more = true; more;) {
      const page = await server.page(projectId, last);
      const first = page.last - page.facts.length + 1;
      facts.push(...page.facts.map((raw, index) => ({ seq: first + index, raw })));
      // Once more, while it was read: the next time.
      if (numbering !== undefined && page.numbering !== numbering) return;
      ({ last, more, numbering } = page);
    }
    await this.store.renumber(projectId, facts, { cursor: last, at: now(), numbering });
    project.cursor = last;
    project.numbering = numbering;
    for (const view of this.views.of(projectId)) view.seq = last;
    this.views.noteChange(projectId);
    await this.log.refresh();
    this.show(
      projectId,
      facts.map(({ raw }) => raw),
    );
    for (const view of this.views.of(projectId)) if (!view.known) await this.load(view);
    await this.lookAround();
    this.around.tell({ entries: true });
    this.around.tell({ project: projectId });
    this.onLost();
  }

  private show(projectId: string, facts: readonly unknown[]): void {
    this.around.together(() => {
      this.log.confirmed(new Set(facts.map((raw) => (raw as AnyFact).id)));
      this.views.add(projectId, facts);
    });
  }

  /** Shows what the server has where the disk has no room for it. */
  private async readUnkept(projectId: string, project: ProjectHere): Promise<void> {
    const facts: unknown[] = [];
    let last = 0;
    for (let more = true; more;) {
      const page = await this.around.server.page(projectId, last);
      facts.push(...page.facts);
      ({ last, more } = page);
    }
    project.cursor = Math.max(project.cursor, last);
    this.around.together(() => {
      for (const view of this.views.of(projectId)) {
        view.begin();
        view.add(facts.filter((raw) => closureIn(raw) === view.closureId));
        view.add(this.log.waitingAt(view.closureId));
      }
    });
  }
}

/** Whether a page is of another numbering than what was read before, so that a position in it means nothing. */
const otherNumbers = (page: FactPage, numbering: string | undefined, cursor: number) =>
  (numbering !== undefined && page.numbering !== undefined && page.numbering !== numbering) ||
  (page.end !== undefined && page.end < cursor);
