export type Depth = number

export interface Sounding {
  readonly depth: Depth
  pier?: string
  again(times: number): Sounding | undefined
}

export abstract class Instrument<T> {
  protected readings: T[] = []
  abstract sound(pier: string): Promise<T>
  get last(): T | undefined {
    return this.readings[this.readings.length - 1]
  }
  each(use: (reading: T, at: number) => void): this {
    this.readings.forEach((reading, at) => use(reading, at))
    return this
  }
}

class Reading implements Sounding {
  constructor(
    readonly depth: Depth,
    public pier?: string,
  ) {
    if (depth < 0) throw new Error(pier)
  }
  again(times: number): Sounding | undefined {
    return times > 0 ? new Reading(this.depth, this.pier).again(times - 1) : undefined
  }
}

export class Gauge extends Instrument<Sounding> {
  static #made = 0
  private readonly byPier = new Map<string, Sounding>()

  constructor(private readonly name: string) {
    super()
    Gauge.#made++
  }

  async sound(pier: string): Promise<Sounding> {
    const reading = read(pier, this.readings.length)
    this.readings.push(reading)
    this.byPier.set(pier, reading)
    return reading
  }

  label(): string {
    return `${this.name} ${Gauge.#made}`
  }
}

function read(pier: string, depth: Depth): Sounding {
  return new Reading(depth, pier)
}

export default Gauge
