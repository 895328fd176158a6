/**
 * Small line drawings of what stands at a station, 40 × 30, ground at the lower edge. Drawn for this product.
 * A station without a sign of its own gets a plain peg.
 */
export const SIGNS: Record<string, string> = {
  residue: 'M14 18a8 8 0 1 0 16 0 8 8 0 1 0-16 0M22 10V4M22 26v4M14 18H8M30 18h6M16.3 12.3 12 8M27.7 12.3 32 8M16.3 23.7 12 28M27.7 23.7 32 28',
  arms: 'M6 6v20M34 10v16M6 9l28 4M6 19l28 4M3 6h6M31 26h6',
  opener: 'M7 17a12 12 0 1 0 24 0 12 12 0 1 0-24 0M16 17a3 3 0 1 0 6 0 3 3 0 1 0-6 0M13 6.6a12 12 0 0 1 21 8.4',
  tube: 'M12 2h9v6c0 9 3 13 10 19M12 2v6c0 11 4 16 12 20M10 2h13',
  'gauge-wheel': 'M8 17a12 12 0 1 0 24 0 12 12 0 1 0-24 0M13 17a7 7 0 1 0 14 0 7 7 0 1 0-14 0M20 17 33 4',
  depth: 'M10 26V12a10 10 0 0 1 20 0M20 26V8M16 12l4-4 4 4M10 26h20M30 12v4',
  firming: 'M6 5c10 2 14 8 20 20h8M30 25v-4M26 25l-3-3',
  closing: 'M12 4 18 28M28 4l-6 24M7 8a12 12 0 0 0 4 20M33 8a12 12 0 0 1-4 20',
  load: 'M20 2v4l-7 3 14 4-14 4 14 4-7 3v5M13 29h14',
}
export const PEG = 'M20 8v20M15 28h10M14 8h12'
