import { OfficeClient } from './generated/officeClient'

export interface Departure {
  id: string
  from: string
  to: string
  time: string
  cancelled: boolean
}

const office = new OfficeClient('https://office.quillhaven.example')

/** The departures of the next three hours, soonest first. */
export async function nextDepartures(now: Date): Promise<Departure[]> {
  const until = new Date(now.getTime() + 3 * 60 * 60 * 1000)
  const found = await office.listDepartures({ from: now.toISOString(), until: until.toISOString() })
  return found
    .map(one => ({ id: one.id, from: one.origin, to: one.destination, time: one.departure.slice(11, 16), cancelled: one.state === 'cancelled' }))
    .sort((a, b) => a.time.localeCompare(b.time))
}

/** The depth at a pier, where the gangway is steep at low water. */
export const gangwayDepth = (pier: string): Promise<number> =>
  fetch(`/v2/call/depth_feet?station=${pier}`).then(answer => answer.json())
