/** Every drawing by the kind of what it is told. Each is fetched when it is first shown, or before: see `fetchDrawings`. */
import { defineAsyncComponent, type Component } from 'vue'
import type { Schemas } from '@/api/client'

export type Drawing = NonNullable<Schemas['SheetOut']['drawing']>
export type DrawingKind = Drawing['kind']

const FILES: Record<DrawingKind, () => Promise<{ default: Component }>> = {
  bar: () => import('./BarLevel.vue'),
  cells: () => import('./PlateCells.vue'),
  chain: () => import('./ChainPitches.vue'),
  clearances: () => import('./HoldDowns.vue'),
  contact: () => import('./OpenerContact.vue'),
  costs: () => import('./NowOrLater.vue'),
  disc: () => import('./DiscWear.vue'),
  even: () => import('./EvenBars.vue'),
  fan: () => import('./WearFan.vue'),
  furrow: () => import('./SeedFurrow.vue'),
  gap: () => import('./GaugeWheelGap.vue'),
  loads: () => import('./YieldLoads.vue'),
  moisture: () => import('./MoisturePairs.vue'),
  reel: () => import('./ReelPath.vue'),
  register: () => import('./KnifeRegister.vue'),
  ring: () => import('./CellRing.vue'),
  rotor: () => import('./ChopperEnd.vue'),
  'row-metre': () => import('./RowMetre.vue'),
  ruler: () => import('./RulerLength.vue'),
  scale: () => import('./ScaleReading.vue'),
  services: () => import('./ServiceLine.vue'),
  sheave: () => import('./BeltSheave.vue'),
  sieves: () => import('./SieveHalves.vue'),
  slot: () => import('./TakeUpSlot.vue'),
  strip: () => import('./SeedStrip.vue'),
  tray: () => import('./TruckTray.vue'),
}

export const DRAWINGS = Object.fromEntries(
  Object.entries(FILES).map(([kind, file]) => [kind, defineAsyncComponent(file)]),
) as Record<DrawingKind, Component>

/** Fetch drawings before they are needed: where there is no signal later, they are there. What fails now is tried again when shown. */
export function fetchDrawings(kinds: Iterable<DrawingKind>): void {
  for (const kind of new Set(kinds)) FILES[kind]().catch(() => undefined)
}
