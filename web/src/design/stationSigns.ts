/**
 * Small line drawings of what stands at a station, 40 × 30, ground at the lower edge. Drawn for this product.
 * A header's station is looked up without its prefix; one without a sign of its own gets a plain peg.
 */
export const SIGNS: Record<string, string> = {
  // Planters
  residue: 'M14 18a8 8 0 1 0 16 0 8 8 0 1 0-16 0M22 10V4M22 26v4M14 18H8M30 18h6M16.3 12.3 12 8M27.7 12.3 32 8M16.3 23.7 12 28M27.7 23.7 32 28',
  arms: 'M6 6v20M34 10v16M6 9l28 4M6 19l28 4M3 6h6M31 26h6',
  opener: 'M7 17a12 12 0 1 0 24 0 12 12 0 1 0-24 0M16 17a3 3 0 1 0 6 0 3 3 0 1 0-6 0M13 6.6a12 12 0 0 1 21 8.4',
  tube: 'M12 2h9v6c0 9 3 13 10 19M12 2v6c0 11 4 16 12 20M10 2h13',
  'gauge-wheel': 'M8 17a12 12 0 1 0 24 0 12 12 0 1 0-24 0M13 17a7 7 0 1 0 14 0 7 7 0 1 0-14 0M20 17 33 4',
  depth: 'M10 26V12a10 10 0 0 1 20 0M20 26V8M16 12l4-4 4 4M10 26h20M30 12v4',
  firming: 'M6 5c10 2 14 8 20 20h8M30 25v-4M26 25l-3-3',
  closing: 'M12 4 18 28M28 4l-6 24M7 8a12 12 0 0 0 4 20M33 8a12 12 0 0 1-4 20',
  load: 'M20 2v4l-7 3 14 4-14 4 14 4-7 3v5M13 29h14',
  hitch: 'M4 16h14l8-8h10M4 12v8M18 16l8 8h10M26 4v8M26 20v8',
  markers: 'M6 26V12L30 4M24 20a6 6 0 1 0 12 0 6 6 0 1 0-12 0M30 4v10',
  travel: 'M6 20a9 9 0 1 0 18 0 9 9 0 1 0-18 0M12 20a3 3 0 1 0 6 0 3 3 0 1 0-6 0M24 14h10v6',
  boxes: 'M8 6h24l-4 16h-16zM6 6h28M17 22v6h6v-6M12 12h16',
  level: 'M4 22h32M8 22v-6h24v6M20 4v8M16 8l4 4 4-4M14 16h4M22 16h4',
  meters: 'M8 15a12 12 0 1 0 24 0 12 12 0 1 0-24 0M20 6v2M20 22v2M11 15h2M27 15h2M14 9l1 1M26 9l-1 1M14 21l1-1M26 21l-1-1',
  'belt-delivery': 'M12 4h10a6 6 0 0 1 0 12l-8 6a4 4 0 0 0 4 6h8M12 4v12l-2 8M20 9h3M18 14h3',
  'put-away': 'M6 28V14l14-9 14 9v14M12 28V18h16v10M12 22h16',
  // Combines and headers
  coupling: 'M4 8h10v14H4M36 8H26v14h10M14 12h4v6h-4M26 12h-4v6h4',
  cutterbar: 'M4 20h32M6 20l3-12 3 12M14 20l3-12 3 12M22 20l3-12 3 12M30 20l2-8 2 8M4 25h32',
  reel: 'M20 15m-11 0a11 11 0 1 0 22 0 11 11 0 1 0-22 0M20 4v22M9 15h22M12 7l16 16M28 7 12 23',
  belts: 'M8 10h24a5 5 0 0 1 0 10H8a5 5 0 0 1 0-10M14 10v10M20 10v10M26 10v10',
  float: 'M4 24c6-6 10 2 16-3s10 2 16-2M12 20V6M28 18V6M9 9l3-3 3 3M25 9l3-3 3 3',
  oil: 'M20 3c6 8 9 12 9 16a9 9 0 0 1-18 0c0-4 3-8 9-16M16 20a4 4 0 0 0 4 4',
  auger: 'M4 15h32M7 22c4-2 4-12 8-14M15 22c4-2 4-12 8-14M23 22c4-2 4-12 8-14',
  drives: 'M6 15a6 6 0 1 0 12 0 6 6 0 1 0-12 0M25 15a4 4 0 1 0 8 0 4 4 0 1 0-8 0M12 9l17 2M12 21l17-2',
  rows: 'M4 26 12 8l3 18M16 26l5-18 3 18M26 26l6-18 4 18M4 26h32',
  'cross-auger': 'M4 12h32v10H4M8 22c3-2 3-8 6-10M16 22c3-2 3-8 6-10M24 22c3-2 3-8 6-10',
  hood: 'M6 24V16A14 14 0 0 1 34 16v8M6 24h10M24 24h10M14 18a6 6 0 0 1 12 0',
  rotor: 'M8 15a12 12 0 1 0 24 0 12 12 0 1 0-24 0M20 3v5M20 22v5M8 15h5M27 15h5M12 7l3 3M28 7l-3 3M12 23l3-3M28 23l-3-3',
  drive: 'M4 10l12 5-12 5M36 10l-12 5 12 5M16 5v20M24 5v20',
  feeder: 'M4 24 30 6l6 8L10 29M10 20l5 6M16 16l5 6M22 12l5 6',
  threshing: 'M4 12h24a7 7 0 0 1 0 12H4M8 12c3 2 3 10 0 12M15 12c3 2 3 10 0 12M22 12c3 2 3 10 0 12M6 28h26',
  shoe: 'M4 10h32M8 10l-3 5M14 10l-3 5M20 10l-3 5M26 10l-3 5M32 10l-3 5M4 21h32M9 21l-3 5M15 21l-3 5M21 21l-3 5M27 21l-3 5M33 21l-3 5',
  elevators: 'M14 28V6a6 6 0 0 1 12 0v22M10 12h8M10 19h8M22 9h8M22 16h8M22 23h8',
  tank: 'M6 6h28l-6 16H12zM14 22v6M26 10l10 3M17 11c2 2 4 2 6 0',
  power: 'M6 12h6l3-5h10l3 5h6v12H6zM12 24v3M28 24v3M16 16h8M2 15v6M38 15v6',
  cab: 'M8 26V8l5-4h16l3 22zM8 15h23M20 15v11M13 4v11',
  // Air seeders
  'dry-run': 'M8 15a8 8 0 1 0 16 0 8 8 0 1 0-16 0M16 15l-4-5M16 15l6-1M16 15l-1 7M26 10h10M26 15h8M26 20h10',
  'ground-run': 'M6 14a7 7 0 1 0 14 0 7 7 0 1 0-14 0M24 16a5 5 0 1 0 10 0 5 5 0 1 0-10 0M2 24h36M8 27h4M18 27h4M28 27h4',
  units: 'M10 4v10l-4 8M20 4v10l-2 10M30 4v10l4 8M6 4h28M3 26h34',
}
export const PEG = 'M20 8v20M15 28h10M14 8h12'

export const signOf = (station: string): string => SIGNS[station] ?? SIGNS[station.replace(/^.*\./, '')] ?? PEG
