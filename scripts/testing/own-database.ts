/** Each worker of the server's tests has a database of its own: the one of its place among them. */
const urls = (process.env['DATABASE_URLS'] ?? '').split(' ')
const place = Number(process.env['VITEST_POOL_ID'] ?? 1) - 1
const url = urls[place]
if (!url) throw new Error(`Worker ${place + 1} has no database of its own: there are ${urls.length}.`)
process.env['DATABASE_URL'] = url
