import type { Gauge as Depths, Sounding } from './quay'

export interface Tide {
  depth: number
  label?(): string
}

export enum State {
  High,
  Low,
}

export const read = (tide: Tide): State => (tide.depth > 3 ? State.High : State.Low)

export function state(tide: Tide | undefined): State {
  return tide ? read(tide) : State.Low
}

export async function compare(gauge: Depths, tide: Tide, { pier }: { pier: string }): Promise<number> {
  const sounding = await gauge.sound(pier)
  const other: Sounding | undefined = sounding.again(2)
  const label = tide.label?.() ?? gauge.label()
  return (other?.depth ?? sounding.depth) - tide.depth + label.length
}
