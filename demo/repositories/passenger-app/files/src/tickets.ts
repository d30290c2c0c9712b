export type Zone = 'harbour' | 'coast' | 'islands' | 'all'

export interface Ticket {
  serial: string
  zone: Zone
  expiry: string
  code: string
}

const KEY = 'quillhaven.tickets'

/** Tickets kept on this device: they must show without a network, on the pier. */
export function storedTickets(): Ticket[] {
  const text = localStorage.getItem(KEY)
  return text ? (JSON.parse(text) as Ticket[]).filter(ticket => ticket.code.split('|').length === 4) : []
}

export function store(ticket: Ticket): void {
  const others = storedTickets().filter(one => one.serial !== ticket.serial)
  localStorage.setItem(KEY, JSON.stringify([...others, ticket]))
}

export function isGood(ticket: Ticket, now = new Date()): boolean {
  return Date.parse(ticket.expiry) >= now.getTime()
}
