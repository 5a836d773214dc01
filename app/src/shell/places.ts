import type { Href } from 'expo-router';

/** The pages of sealing: an overview, and one for each of its stages. */
export const sealParts = ['stages', 'look', 'tighten', 'close', 'test', 'hold', 'after'] as const;
export type SealPart = (typeof sealParts)[number];

/** The pages of handing over. */
export const handoverParts = ['ready', 'calls', 'documents', 'sign'] as const;
export type HandoverPart = (typeof handoverParts)[number];

/** Addresses of the screens, in one place so that links and journeys agree. */
export const places = {
  shelf: '/' as Href,
  newProject: '/new' as Href,
  waiting: '/waiting' as Href,
  /** Where a person decides between two edits of the same thing. */
  decide: (editId: string) => `/waiting/${editId}` as Href,
  line: (projectId: string) => `/p/${projectId}` as Href,
  losses: (projectId: string) => `/p/${projectId}/losses` as Href,
  look: (projectId: string) => `/p/${projectId}/losses/look` as Href,
  limits: (projectId: string) => `/p/${projectId}/limits` as Href,
  settings: (projectId: string) => `/p/${projectId}/settings` as Href,
  site: (projectId: string, siteId: string) => `/p/${projectId}/s/${siteId}` as Href,
  cable: (projectId: string, cableId: string) => `/p/${projectId}/cable/${cableId}` as Href,
  editCable: (projectId: string, cableId: string) => `/p/${projectId}/cable/${cableId}/edit` as Href,
  follow: (projectId: string, cableId?: string, fiber?: number, span?: number) =>
    `/p/${projectId}/follow${cableId ? `?cable=${cableId}&fiber=${fiber ?? 1}&span=${span ?? 0}` : ''}` as Href,
  kit: (projectId: string, closureId?: string) =>
    `/p/${projectId}/kit${closureId ? `?closure=${closureId}` : ''}` as Href,
  prepare: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}/prepare` as Href,
  before: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}/prepare/before` as Href,
  seals: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}/prepare/seals` as Href,
  connectors: (projectId: string, closureId: string) =>
    `/p/${projectId}/c/${closureId}/prepare/connectors` as Href,
  cutSheet: (projectId: string, closureId: string, cableId: string) =>
    `/p/${projectId}/c/${closureId}/prepare/${cableId}` as Href,
  steps: (projectId: string, closureId: string, cableId: string) =>
    `/p/${projectId}/c/${closureId}/prepare/${cableId}/steps` as Href,
  seal: (projectId: string, closureId: string, part: SealPart = 'stages') =>
    `/p/${projectId}/c/${closureId}/seal/${part}` as Href,
  table: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}/table` as Href,
  time: (projectId: string, closureId?: string) =>
    `/p/${projectId}/time${closureId ? `?closure=${closureId}` : ''}` as Href,
  nights: (projectId: string) => `/p/${projectId}/nights` as Href,
  /** What the nights are planned from. */
  nightsSetup: (projectId: string) => `/p/${projectId}/nights/setup` as Href,
  /** What a crew takes along, and does, in one night. */
  crewSheet: (projectId: string, nightId: string, crewId: string) =>
    `/p/${projectId}/nights/sheet?night=${nightId}&crew=${crewId}` as Href,
  handover: (projectId: string, part: HandoverPart = 'ready', closureId?: string) =>
    `/p/${projectId}/handover/${part}${closureId ? `?closure=${closureId}` : ''}` as Href,
  verify: '/verify' as Href,
  backup: '/backup' as Href,
  practice: '/practice' as Href,
  /** A night at the simulated machine. */
  practiceNight: (night: string) => `/practice/${night}` as Href,
  find: (projectId?: string, q = '') =>
    `/find${projectId ? `?project=${projectId}${q ? `&q=${encodeURIComponent(q)}` : ''}` : ''}` as Href,
  plan: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}/plan` as Href,
  gear: '/gear' as Href,
  gearItem: (gearId: string) => `/gear/${gearId}` as Href,
  /** The form of a new piece of gear. */
  newGear: (kind: string) => `/gear/new?kind=${kind}` as Href,
  models: '/models' as Href,
  model: (modelId: string) => `/models/${modelId}` as Href,
  closure: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}` as Href,
  tray: (projectId: string, closureId: string, tray: number) =>
    `/p/${projectId}/c/${closureId}/t/${tray}` as Href,
  bench: (projectId: string, closureId: string, tray: number, slot: number) =>
    `/p/${projectId}/c/${closureId}/t/${tray}/${slot}` as Href,
  /** Measured losses of a tray, beginning with the first that is not measured, or with the one named. */
  measure: (projectId: string, closureId: string, tray: number, at?: { slot: number; fiber: number }) =>
    `/p/${projectId}/c/${closureId}/measure/${tray}${at ? `?slot=${at.slot}&fiber=${at.fiber}` : ''}` as Href,
  /** Readings from a machine's log. */
  log: (projectId: string, closureId: string, shared = false) =>
    `/p/${projectId}/c/${closureId}/log${shared ? '?shared=1' : ''}` as Href,
  /** The same splice, while a linked machine is listened to. */
  listen: (projectId: string, closureId: string, tray: number, slot: number) =>
    `/p/${projectId}/c/${closureId}/listen/${tray}/${slot}` as Href,
};

export type ProjectTab = 'line' | 'follow' | 'kit' | 'losses' | 'limits';

export function projectTabs(projectId: string, here: ProjectTab) {
  return [
    { label: 'Line', href: places.line(projectId), here: here === 'line' },
    { label: 'Follow', href: places.follow(projectId), here: here === 'follow' },
    { label: 'Kit', href: places.kit(projectId), here: here === 'kit' },
    { label: 'Losses', href: places.losses(projectId), here: here === 'losses' },
    { label: 'Limits', href: places.limits(projectId), here: here === 'limits' },
  ];
}
