import type { FactServer } from '../src/sync/surroundings';

export class Unreachable extends Error {}
class Refused extends Error {}

/** A server that keeps facts by project, under numbers without holes, each once. */
export class TestServer implements FactServer {
  readonly stored = new Map<string, unknown[]>();
  reachable = true;
  /** Facts that it will not take. */
  readonly bad = new Set<string>();
  /** Projects that it has not. */
  readonly gone = new Set<string>();
  /** Stores, and its answer is lost. */
  losesAnswers = false;
  pages = 0;
  perPage = 10;
  /** Of another one, its database is an older copy that was restored. */
  numbering = 'first';

  async send(of: string, given: readonly unknown[]) {
    if (!this.reachable) throw new Unreachable();
    if (this.gone.has(of)) throw new Refused('There is no such project.');
    const list = this.stored.get(of) ?? [];
    this.stored.set(of, list);
    const accepted: { id: string; seq: number }[] = [];
    const refused: { id: string; message: string }[] = [];
    for (const raw of given) {
      const { id } = raw as { id: string };
      if (this.bad.has(id)) refused.push({ id, message: 'Not this one.' });
      else {
        if (!list.some((one) => (one as { id: string }).id === id)) list.push(raw);
        accepted.push({ id, seq: list.findIndex((one) => (one as { id: string }).id === id) + 1 });
      }
    }
    if (this.losesAnswers) throw new Unreachable();
    return { accepted, refused };
  }

  async page(of: string, after: number) {
    if (!this.reachable) throw new Unreachable();
    this.pages += 1;
    const list = this.stored.get(of) ?? [];
    const page = list.slice(after, after + this.perPage);
    return {
      facts: page,
      last: after + page.length,
      more: page.length === this.perPage,
      numbering: this.numbering,
      end: list.length,
    };
  }

  /** Pictures by the photo's id, each as often as it came. */
  readonly pictures = new Map<string, ArrayBuffer[]>();
  /** Pictures that it will not take. */
  readonly badPictures = new Set<string>();

  async sendPicture(_: string, id: string, bytes: ArrayBuffer) {
    if (!this.reachable) throw new Unreachable();
    if (this.badPictures.has(id)) throw new Refused('This is no picture.');
    this.pictures.set(id, [...(this.pictures.get(id) ?? []), bytes]);
    if (this.losesAnswers) throw new Unreachable();
  }

  async picture(_: string, id: string) {
    if (!this.reachable) throw new Unreachable();
    const [bytes] = this.pictures.get(id) ?? [];
    if (!bytes) throw new Refused('There is no such photo.');
    return bytes;
  }

  refusal = (error: unknown) => (error instanceof Refused ? error.message : null);
  ids = (of: string) => (this.stored.get(of) ?? []).map((raw) => (raw as { id: string }).id);
}
