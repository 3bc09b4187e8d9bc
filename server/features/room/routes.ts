import type { Handlers } from '../../http/call'

/** How a second machine in the room finds this server. */
export function roomRoutes(room: {
  readonly addresses: () => readonly string[]
  readonly hasAuthority: boolean
}): Pick<Handlers, 'room.read'> {
  return {
    'room.read': () => Promise.resolve({ addresses: [...room.addresses()], hasAuthority: room.hasAuthority }),
  }
}
