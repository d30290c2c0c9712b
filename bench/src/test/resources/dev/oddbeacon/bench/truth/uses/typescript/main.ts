import { Gauge, Meter, tides, type Sounding } from './quay'
import * as quay from './quay/index'
import { compare, state } from './tide'

type Both = Gauge | tides.Tide

const gauges = new Map<string, Gauge>()

function sum(all: Sounding[]): number {
  let total = 0
  for (const one of all) {
    total += one.depth
  }
  return total
}

function name(both: Both): string {
  return both instanceof Gauge ? both.label() : String(both.depth)
}

export async function main(): Promise<void> {
  const gauge = new Gauge('north')
  const meter: Gauge = new Meter('south')
  gauges.set('north', gauge)
  const reading = await gauge.sound('east')
  const readings: Sounding[] = [reading, await meter.sound('west')]
  gauge.each((each, at) => {
    console.log(each.depth, each.pier, at)
  })
  const depth = sum(readings) + (await compare(gauge, { depth: 2 }, { pier: 'east' }))
  const sum2 = readings.map(one => one.again(1)?.depth ?? depth)
  console.log(name(meter), sum2, tides.state({ depth }), state(undefined))
  const { label } = { label: 'none' }
  console.log(label, (new quay.Gauge('x') as quay.Gauge).last?.depth)
}
