import { formatChainage, lossText } from '@cordel/core';
import { fingerprintWords, type AsBuilt, type AsBuiltClosure } from '@cordel/core/asBuilt';
import { histogram } from './charts';
import { keyFigures, loss, mean, plural, type Context } from './context';
import { accent, ink, soft, type Paper, type TableCell, type TableColumn } from './paper';
import { drawQr } from './qr';

/** Whether it is good, why, and the fingerprint; of a project its line too. */
export function firstPage(
  { paper, built, when }: Context,
  name: string,
  fingerprint: string,
  address: string,
): void {
  const { closures, project, sums } = built;
  const against = closures.flatMap(({ ready, site }) =>
    ready.filter(({ stands }) => stands === 'against').map((line) => ({ ...line, site })),
  );
  paper.heading(1, name);
  paper.text(
    built.scope === 'closure'
      ? `${project.name} · record of its splices`
      : `${plural(closures.length, 'closure', 'closures')} · record of its splices`,
    'body',
    soft,
  );
  paper.gap(8);
  const good = against.length === 0 && sums.splices > 0;
  paper.text(
    good
      ? 'Good: nothing stands against its acceptance.'
      : `Not ready: ${plural(against.length, 'thing stands', 'things stand')} against its acceptance.`,
    'reading',
    good ? ink : accent,
  );
  paper.gap(4);
  for (const { words, site } of against.slice(0, 7))
    paper.text(`• ${built.scope === 'project' ? `${site}: ` : ''}${words}`);
  if (against.length > 7) paper.text(`• ${against.length - 7} more, with the closures.`);
  const tells = new Map<string, string[]>();
  for (const { ready, site } of closures)
    for (const { words, stands, code } of ready)
      if (stands === 'told' && code !== 'estimates') tells.set(site, [...(tells.get(site) ?? []), words]);
  paper.gap(6);
  keyFigures(paper, sums, project.limits, closures);
  paper.gap(10);
  const losses = lossesOf(closures);
  if (losses.length > 0)
    paper.figure(
      132,
      `Losses of ${losses.length} fibers by hundredths of a dB. ${losses.filter((one) => one > project.limits.singleMax).length} are over the limit of a single splice, ${lossText(project.limits.singleMax)} dB; the mean is ${mean(sums.mean)} dB, the highest ${loss(sums.worst)} dB.`,
      (box) =>
        histogram(paper, box, losses, [
          { limit: project.limits.singleMax, name: 'single' },
          ...(project.limits.ribbonFiberMax !== project.limits.singleMax
            ? [{ limit: project.limits.ribbonFiberMax, name: 'ribbon fiber' }]
            : []),
        ]),
    );
  paper.text(
    'Estimated loss of each fiber (dB), and how many read it; over the limit in red-orange.',
    'small',
    soft,
  );
  if (tells.size > 0) {
    paper.gap(6);
    paper.text('To be known', 'small-heading');
    const all = [...tells].flatMap(([site, words]) =>
      words.map((one) => (built.scope === 'project' ? `${site}: ${one}` : one)),
    );
    for (const one of all.slice(0, 6)) paper.text(`• ${one}`, 'small');
    if (all.length > 6) paper.text(`• ${all.length - 6} more, with the closures.`, 'small');
  }
  const last = built.signOffs.at(-1);
  if (last) {
    paper.gap(4);
    paper.text(
      `${last.of} was ${last.decision.replaceAll('-', ' ')}, signed by ${last.name} (${last.role}), ${when(last.at)}${last.later > 0 ? `; ${plural(last.later, 'record is', 'records are')} later than that` : ''}. Fingerprint then: ${fingerprintWords(last.sha256)}.`,
      'strong',
    );
  }
  const { y } = paper;
  paper.y = paper.pageFoot - printHeight;
  printPart(paper, built, fingerprint, address, when);
  // What follows goes on above it where there is room, else on a page of its own.
  paper.y = y;
  if (built.scope === 'project')
    if (paper.pageFoot - printHeight - y > 60 + built.sites.length * 12.5) route(paper, built);
    else {
      paper.page();
      route(paper, built);
    }
}

/** How much of page one the fingerprint takes, at its foot. */
const printHeight = 82;

function printPart(
  paper: Paper,
  { records }: AsBuilt,
  fingerprint: string,
  address: string,
  when: Context['when'],
): void {
  const text = `${address}/verify?sha256=${fingerprint}`;
  const { y } = paper;
  paper.figure(76, `QR code of the fingerprint: ${text}`, ({ x }) =>
    drawQr(paper.doc, text, { x, y, width: 76, height: 76 }, ink),
  );
  paper.y = y + 6;
  const beside = { x: paper.left + 92, width: paper.width - 92 };
  paper.text('Fingerprint of this record', 'small-heading', ink, beside);
  paper.text(fingerprintWords(fingerprint), 'strong', ink, beside);
  paper.text(`SHA-256 ${fingerprint}`, 'tiny', soft, beside);
  paper.text(
    `${plural(records.count, 'record', 'records')}${records.lastMadeAt ? `, the last of ${when(records.lastMadeAt)}` : ''}. The record as JSON has the same fingerprint: npm run verify -- FILE, or the page behind the code.`,
    'small',
    soft,
    beside,
  );
}

const lossesOf = (closures: readonly AsBuiltClosure[]) =>
  closures.flatMap(({ splices }) =>
    splices
      .filter(({ planned }) => planned)
      .flatMap(({ readings }) => readings.flatMap((one) => one.loss ?? [])),
  );

/** The sites on the cord, by their distance. */
function route(paper: Paper, { sites, closures, project }: AsBuilt): void {
  paper.heading(2, 'The line');
  const closureAt = new Map(closures.map((one) => [one.siteId, one]));
  const columns: TableColumn[] = [
    { title: 'Site', share: 30 },
    { title: 'Distance', share: 14 },
    { title: 'Splices', share: 22 },
    { title: 'Mean (dB)', share: 12, align: 'right' },
    { title: 'Highest (dB)', share: 12, align: 'right' },
    { title: 'Seal', share: 14 },
  ];
  const names = new Map(sites.map((site) => [site.id, site.name]));
  paper.table(
    columns,
    sites.map((site): TableCell[] => {
      const closure = closureAt.get(site.id);
      const distance = `${formatChainage(site.chainage, project.units)}${site.branchFrom ? ` from ${names.get(site.branchFrom) ?? ''}` : ''}`;
      if (!closure) return [site.name, distance, '', '', '', ''];
      const { sums, seal } = closure;
      const settled = sums.holds + sums.allowed;
      return [
        { text: site.name, look: 'small-strong' },
        distance,
        { text: `${settled} of ${sums.splices}`, color: settled < sums.splices ? accent : ink },
        { text: mean(sums.mean), color: sums.meanOver ? accent : ink },
        loss(sums.worst),
        {
          text: seal.sealed ? 'sealed' : seal.tickedOnly ? 'ticked' : 'not sealed',
          color: seal.sealed || seal.tickedOnly ? ink : accent,
        },
      ];
    }),
  );
}
