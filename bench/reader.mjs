// Reads one address over and over, in a process of its own: what its reader costs is not the server's. Ends with its parent.
import { Agent, get } from 'node:http'

const [url, cookie] = process.argv.slice(2)
const agent = new Agent({ keepAlive: true, maxSockets: 1 })

function read() {
  get(url, { agent, headers: { cookie } }, (response) => {
    response.resume()
    response.on('end', () => {
      process.send?.('read')
      read()
    })
  }).on('error', () => process.exit(0))
}
process.on('disconnect', () => process.exit(0))
read()
