import { hostname, networkInterfaces, type NetworkInterfaceInfo } from 'node:os'

/** Addresses of this machine on its networks, IPv4 first; what is not reached from another machine is left out. */
export function networkAddresses(
  interfaces: Readonly<Record<string, readonly NetworkInterfaceInfo[] | undefined>> = networkInterfaces(),
): string[] {
  const found = Object.values(interfaces).flatMap((addresses) => addresses ?? [])
  // An address that holds on one cable alone (fe80::/10, RFC 4291) needs its cable's name, which no browser takes.
  const reached = found.filter(({ internal, address }) => !internal && !/^fe[89ab]/i.test(address))
  const inOrder = (family: string) => reached.filter((one) => one.family === family).map((one) => one.address)
  return [...new Set([...inOrder('IPv4'), ...inOrder('IPv6')])]
}

/** What a certificate of this machine must name: its addresses, its name with and without `.local`, and itself. */
export function namesOfMachine(): string[] {
  const name = hostname().toLowerCase()
  const names = /^[a-z0-9-]+$/.test(name) ? [name, `${name}.local`] : []
  return [...names, 'localhost', '127.0.0.1', '::1', ...networkAddresses()]
}

/** Where a tablet finds a server that listens on `host`; nothing where only this machine does. */
export function addressesFor(scheme: 'http' | 'https', host: string, port: number): string[] {
  const isAll = host === '0.0.0.0' || host === '::'
  const hosts = isAll ? networkAddresses() : isOfThisMachine(host) ? [] : [host]
  return hosts.map((one) => `${scheme}://${one.includes(':') ? `[${one}]` : one}:${port}`)
}

/** Whether nobody but this machine itself can come by that address. */
export function isOfThisMachine(host: string): boolean {
  return host === 'localhost' || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host)
}
