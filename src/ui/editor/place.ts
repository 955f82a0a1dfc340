export const STATIONS = ['Board', 'Arrange', 'Passes', 'Proof', 'Run'] as const;
export type Station = (typeof STATIONS)[number];

/** Where a person is in a job: what its address says, so that a reload, Back and a link come to the same place. */
export interface Place {
  station: Station;
  /** The setup that was asked for; null for the one that is shown by itself. */
  setup: string | null;
  /** Layers that are selected. */
  layers: readonly string[];
  pass: string | null;
  /** The finding that is pointed at. */
  finding: string | null;
}

export const START: Place = { station: 'Board', setup: null, layers: [], pass: null, finding: null };

/** Layers that an address names: so long an address is still taken by browsers and servers. */
const MOST_NAMED = 40;

/** The place that the fields of an address say; what they do not say, or say wrongly, is as at the start. */
export function placeOf(search: string): Place {
  const q = new URLSearchParams(search);
  const station = STATIONS.find((s) => s.toLowerCase() === q.get('station')) ?? START.station;
  return {
    station,
    setup: q.get('setup'),
    layers: q.getAll('layer').slice(0, MOST_NAMED),
    pass: q.get('pass'),
    finding: q.get('finding'),
  };
}

/** The fields of an address that say a place; what is as at the start is left out. */
export function searchOf(p: Place): string {
  const q = new URLSearchParams();
  if (p.station !== START.station) q.set('station', p.station.toLowerCase());
  if (p.setup !== null) q.set('setup', p.setup);
  if (p.layers.length <= MOST_NAMED) for (const l of p.layers) q.append('layer', l);
  if (p.pass !== null) q.set('pass', p.pass);
  if (p.finding !== null) q.set('finding', p.finding);
  return q.size === 0 ? '' : `?${q}`;
}

/** Whether going from one place to another is a step that Back goes back over; a selection within a station is none. */
export const isStep = (from: Place, to: Place): boolean =>
  from.station !== to.station || from.setup !== to.setup || from.finding !== to.finding;
